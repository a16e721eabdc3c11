import Button from '@mui/material/Button';
import type { TrialId } from '~core/model/ids';
import { countOf } from '~core/quantity/format';
import { usePost } from '../form/usePost';
import { shortDate } from '../ui/clock';

interface Props {
  id: TrialId | string;
  question: string;
  /** the first day something was planned for */
  from: string;
  acts: number;
}

/** A trial that began before its plan was sealed here: what became of those days is asked once. */
export function BeforeSeal({ id, question, from, acts }: Props) {
  const post = usePost();
  const say = (beforeSeal: 'planned' | 'notDone' | 'typed') => post({ trialId: id, beforeSeal });
  return (
    <section
      className="note open"
      style={{ marginBottom: '1.4rem' }}
      aria-label={`Before the seal of ${question}`}
    >
      <p>
        <strong>{question}</strong> began before its plan was sealed here: {countOf(acts, 'task')} from{' '}
        {shortDate(from)} on {acts === 1 ? 'was' : 'were'} planned for days that are over. What became of{' '}
        {acts === 1 ? 'it' : 'them'}?
      </p>
      <div className="inline-row">
        <Button size="small" variant="outlined" color="secondary" onClick={() => say('planned')}>
          All done as planned
        </Button>
        <Button size="small" variant="outlined" color="secondary" onClick={() => say('notDone')}>
          Not done
        </Button>
        <Button size="small" variant="outlined" color="secondary" onClick={() => say('typed')}>
          I’ll write it down
        </Button>
      </div>
      <p className="small quiet">
        As planned ticks tasks and turns off on their days; values of rounds are typed all the same. The
        answer goes into the log, and can be asked for again under Tasks.
      </p>
    </section>
  );
}
