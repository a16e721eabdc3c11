import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import type { UnitId } from '~core/model/ids';
import type { MixedUp } from '~core/log/views';
import type { TrialState } from '~core/log/state';
import { planIndex } from '~core/plan/planIndex';
import { listNames } from '~core/quantity/format';
import { usePost } from '../../../form/usePost';
import { PickOne } from '../../../ui/PickOne';

/** Units whose labels are lost, each given its name again by a sign. */
export function TellApart({ state, lost }: { state: TrialState; lost: MixedUp }) {
  const post = usePost();
  const [as, setAs] = useState<Readonly<Record<string, UnitId>>>({});
  const [how, setHow] = useState('');
  const [fault, setFault] = useState<string | null>(null);
  const code = (id: UnitId) => planIndex(state.plan).unit(id)?.code ?? '?';
  const resolve = () => {
    const pairs = lost.unitIds.map((from) => ({ from, to: as[from] }));
    if (pairs.some((p) => p.to === undefined)) return setFault('Say of each which one it is.');
    if (new Set(pairs.map((p) => p.to)).size < pairs.length)
      return setFault('Two of them can’t be the same one.');
    if (how.trim() === '') return setFault('Say by what sign; one that can’t be the product’s doing.');
    setFault(null);
    post({ tellApart: { mixedUpId: lost.entryId, as: pairs, how } });
  };
  return (
    <section className="note bad" style={{ marginBottom: '1rem' }} aria-label="Labels lost">
      <strong>
        {listNames(lost.unitIds.map(code))}: each is one of these{lost.reason ? ` (${lost.reason})` : ''}.
        Findings leave them out.
      </strong>
      <div className="inline-row" style={{ marginTop: '0.6rem' }}>
        {lost.unitIds.map((id) => (
          <PickOne
            key={id}
            label={`Where ${code(id)} stood is`}
            value={as[id] ?? ''}
            options={lost.unitIds.map((to) => [to, code(to)] as const)}
            onPick={(to) => setAs({ ...as, [id]: to })}
            sx={{ minWidth: 170 }}
          />
        ))}
        <TextField
          size="small"
          label="Told by"
          value={how}
          onChange={(e) => setHow(e.target.value)}
          placeholder="a notch in the rim"
        />
        <Button variant="outlined" onClick={resolve}>
          Tell them apart
        </Button>
      </div>
      {fault && (
        <p role="alert" className="small" style={{ color: 'var(--porphyry)' }}>
          {fault}
        </p>
      )}
    </section>
  );
}
