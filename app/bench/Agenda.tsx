import './Agenda.css';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import dayjs from 'dayjs';
import { inSentence, plural } from '~core/quantity/format';
import { clockText } from '../ui/region';
import { useState } from 'react';
import { Link } from 'react-router';
import { usePost } from '../form/usePost';
import { Caution } from '../ui/Caution';
import { RowMenu } from '../ui/RowMenu';
import { LateDialog, SkipDialog, TookDialog } from './ActDialogs';
import { type Act, type Waiting, actPath, actVerb, byPlace, durationWords, isLate } from './acts';
import { relativeDay, shortDate } from '../ui/clock';

/** Squares of a day: done, late, to come. */
function Marks({ acts, today }: { acts: readonly Act[]; today: string }) {
  const most = 16;
  return (
    <span className="marks" aria-hidden="true">
      {acts.slice(0, most).map((a) => (
        <i
          key={`${a.trialId}${a.id}`}
          className={a.state !== 'open' ? 'done' : isLate(a, today) ? 'late' : ''}
        />
      ))}
    </span>
  );
}

interface DaysProps {
  days: readonly string[];
  actsOn: (day: string) => Act[];
  chosen: string;
  today: string;
  /** month whose days are its own; others are paler */
  month?: string;
}

/** A row of days with what each asks for; one is chosen. */
export function WeekStrip({ days, actsOn, chosen, today, month }: DaysProps) {
  return (
    <nav className="week" aria-label={`Days from ${shortDate(days[0]!)}`}>
      {days.map((day) => {
        const acts = actsOn(day);
        const open = acts.filter((a) => a.state === 'open').length;
        return (
          <Link
            key={day}
            to={`?day=${day}${month ? '&view=month' : ''}`}
            className={month && !day.startsWith(month) ? 'other' : undefined}
            aria-current={day === chosen ? 'date' : undefined}
            preventScrollReset
          >
            {dayjs(day).format('ddd')} <span className="figure">{dayjs(day).format('D')}</span>
            <span className="sr-only">
              {' '}
              {dayjs(day).format('MMMM')}, {open} to do
            </span>
            <Marks acts={acts} today={today} />
          </Link>
        );
      })}
    </nav>
  );
}

/** The acts of a day, place by place: ticked off, skipped with a reason, or gone to. */
export function ActList({ acts, today }: { acts: readonly Act[]; today: string }) {
  const post = usePost();
  const [skipping, setSkipping] = useState<Act | null>(null);
  const [late, setLate] = useState<Act | null>(null);
  const [took, setTook] = useState<Act | null>(null);
  const next = acts.find((a) => a.state === 'open');
  const tick = (a: Act, on?: string) =>
    post({
      intent: a.state === 'open' ? 'tick' : 'untick',
      trialId: a.trialId,
      task: a.task,
      ...(on && { on }),
    });
  return (
    <>
      {byPlace(acts).map(({ place, acts: list, minutes }) => (
        <section key={place} aria-label={place}>
          <h2 style={{ margin: 0 }}>
            {place}{' '}
            {minutes > 0 && (
              <span className="small quiet" style={{ fontFamily: 'var(--sans)', fontWeight: 400 }}>
                {durationWords(minutes)}
              </span>
            )}
          </h2>
          <ul className={list.some((a) => a.at !== null) ? 'acts' : 'acts untimed'}>
            {list.map((a) => (
              <li key={`${a.trialId}${a.id}`} className={a === next ? 'next' : a.state}>
                <span className="tick">
                  {a.task === null ? (
                    <Checkbox
                      color="success"
                      checked={a.state === 'done'}
                      disabled
                      slotProps={{ input: { 'aria-label': `${a.what}: ${a.done} of ${a.wanted}` } }}
                    />
                  ) : (
                    <Checkbox
                      color="success"
                      checked={a.state !== 'open'}
                      indeterminate={a.state === 'skipped'}
                      onChange={() => tick(a)}
                      slotProps={{ input: { 'aria-label': `${a.what}, ${a.question}` } }}
                    />
                  )}
                </span>
                <span className="at num quiet">{a.at === null ? '' : clockText(a.at)}</span>
                <span className="what">
                  {a.what}
                  {isLate(a, today) && (
                    <span className="why small" style={{ color: 'var(--porphyry)' }}>
                      was due {relativeDay(a.date, today)}
                      {a.missedBefore > 0 &&
                        `, and ${a.missedBefore === 1 ? 'once' : `${a.missedBefore} times`} before`}
                    </span>
                  )}
                  {a.state === 'open' && a.why && <span className="why small quiet">{a.why}</span>}
                  {a.state === 'open' && a.caution && <Caution>{a.caution}</Caution>}
                </span>
                <span className="hand small quiet">
                  {[
                    a.wanted > 1
                      ? `${a.done}/${a.wanted} ${a.kind === 'mix' ? 'bottles' : plural(a.unitNoun)}`
                      : '',
                    a.state === 'open' ? a.atHand : '',
                  ]
                    .filter(Boolean)
                    .join(' · ')}
                </span>
                <span className="trial small quiet" title={a.question}>
                  {a.short}
                </span>
                <span className="go">
                  {a.state === 'open' && actPath(a) && (
                    <Button
                      size="small"
                      color={a === next ? 'primary' : 'secondary'}
                      component={Link}
                      to={actPath(a)!}
                      variant={a === next ? 'contained' : 'outlined'}
                    >
                      {actVerb(a)}
                    </Button>
                  )}
                </span>
                <span className="menu">
                  {a.state !== 'skipped' && (
                    <RowMenu
                      label={`More for ${a.what}`}
                      acts={[
                        ...(a.task !== null && a.state === 'open'
                          ? [
                              { text: 'Done on another day …', act: () => setLate(a) },
                              { text: 'Not done, because …', act: () => setSkipping(a) },
                            ]
                          : []),
                        {
                          text:
                            a.task !== null && a.state === 'open'
                              ? 'Done, and it took … min'
                              : 'It took … min',
                          act: () => setTook(a),
                        },
                      ]}
                    />
                  )}
                </span>
              </li>
            ))}
          </ul>
        </section>
      ))}
      {took && <TookDialog act={took} onClose={() => setTook(null)} />}
      {skipping && <SkipDialog act={skipping} onClose={() => setSkipping(null)} />}
      {late && (
        <LateDialog act={late} today={today} onClose={() => setLate(null)} onDone={(on) => tick(late, on)} />
      )}
    </>
  );
}

/** What waits for something to happen, with the button that says it did. */
export function WaitingList({ waiting }: { waiting: readonly Waiting[] }) {
  const post = usePost();
  if (waiting.length === 0) return null;
  const events = new Map<string, Waiting[]>();
  for (const w of waiting) {
    const key = `${w.trialId}/${w.event}`;
    events.set(key, [...(events.get(key) ?? []), w]);
  }
  return (
    <section aria-labelledby="waiting">
      <h2 id="waiting">Whenever it happens</h2>
      <ul className="acts">
        {[...events.values()].map((list) => (
          <li
            key={`${list[0]!.trialId}${list[0]!.event}`}
            style={{ gridTemplateColumns: 'minmax(0, 1fr) auto' }}
          >
            <span className="what" style={{ gridColumn: 1 }}>
              When {list[0]!.event}:{' '}
              {list.map((w) => `${inSentence(w.what)}${w.days > 0 ? `, ${w.days} d after` : ''}`).join('; ')}
              <span className="why small quiet" title={list[0]!.question}>
                {list[0]!.short}
              </span>
            </span>
            <span className="go" style={{ gridColumn: 2 }}>
              <Button
                size="small"
                color="secondary"
                variant="outlined"
                aria-label={`It happened today: ${list[0]!.event}, ${list[0]!.short}`}
                onClick={() => post({ intent: 'reached', trialId: list[0]!.trialId, event: list[0]!.event })}
              >
                It happened today
              </Button>
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
