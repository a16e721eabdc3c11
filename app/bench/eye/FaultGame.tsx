import Button from '@mui/material/Button';
import { useMemo, useState } from 'react';
import { faultCase, markFaults } from '~core/eye/findFault';
import { countWord, sentenceCase } from '~core/quantity/format';
import { Told } from './Told';
import type { GameProps } from './game';

/** A plan and its log, line by line: which would a reader object to? */
export function FaultGame({ seed, level, onAnswered, onNext }: GameProps) {
  const one = useMemo(() => faultCase(seed, level), [seed, level]);
  const [marked, setMarked] = useState<ReadonlySet<string>>(new Set());
  const [done, setDone] = useState(false);
  const result = markFaults(one, marked);
  const toggle = (id: string) =>
    setMarked((before) => new Set(before.has(id) ? [...before].filter((x) => x !== id) : [...before, id]));
  const judge = () => {
    setDone(true);
    onAnswered({
      right: result.right,
      faults: { there: result.there, hit: result.hit, wrong: result.wrong },
    });
  };
  return (
    <>
      <p className="quiet">
        A plan and its log. Mark every line a reader could object to; there may be none.
      </p>
      <div role="group" aria-label="Lines of the plan and the log">
        {one.lines.map((l) => (
          <div key={l.id}>
            <button
              type="button"
              className={`eye-line${done && l.faults.length > 0 && !marked.has(l.id) ? ' missed' : ''}`}
              aria-pressed={marked.has(l.id)}
              disabled={done}
              onClick={() => toggle(l.id)}
            >
              <span className="box" aria-hidden="true" />
              <span>{l.text}</span>
            </button>
            {done && (l.faults.length > 0 || marked.has(l.id)) && (
              <p className="small" style={{ margin: '0.2rem 0 0.6rem 2.4rem' }}>
                {l.faults.length > 0 ? (
                  l.faults.map((f) => (
                    <span key={f.title} style={{ display: 'block' }}>
                      <strong>{f.title}.</strong> {f.why}
                    </span>
                  ))
                ) : (
                  <>Nothing is wrong with it.</>
                )}
              </p>
            )}
          </div>
        ))}
      </div>
      {!done && (
        <p style={{ marginTop: '1rem' }}>
          <Button variant="contained" onClick={judge}>
            {marked.size === 0 ? 'Nothing to object to' : 'That is all of them'}
          </Button>
        </p>
      )}
      {done && (
        <Told title={sayMarked(result)} onNext={onNext}>
          <p className="small quiet">Reasons stand under the lines; a missed one is shaded.</p>
        </Told>
      )}
    </>
  );
}

/** @example sayMarked({ there: 3, hit: 2, wrong: 0 }) // 'Two of three faults found.' */
function sayMarked({ there, hit, wrong }: { there: number; hit: number; wrong: number }): string {
  const of =
    there === 0
      ? 'There was no fault'
      : hit === there
        ? there === 1
          ? 'The one fault was found'
          : `All ${countWord(there)} faults were found`
        : hit === 0
          ? there === 1
            ? 'The one fault was missed'
            : `None of the ${countWord(there)} faults was found`
          : `${sentenceCase(countWord(hit))} of ${countWord(there)} faults ${hit === 1 ? 'was' : 'were'} found`;
  const over =
    wrong === 0 ? '' : `; ${countWord(wrong)} ${wrong === 1 ? 'line was' : 'lines were'} marked without one`;
  return `${of}${over}.`;
}
