import type { ReactNode } from 'react';
import type { ScaleStep } from '~core/model/plan';
import type { ScoredThing } from '~core/sensory/panelOutcome';
import { Tessera } from '../../ui/Tessera';
import './ScoreStrip.css';

interface Props {
  thing: ScoredThing;
  /** of the written scale; null for places of a ranking */
  steps: readonly ScaleStep[] | null;
  nameOf: (id: string) => ReactNode;
  indexOf: (id: string) => number;
}

/** Every score as a tile on its step, a row a contender. */
export function ScoreStrip({ thing, steps, nameOf, indexOf }: Props) {
  const given = thing.treatments.flatMap((t) => t.values);
  const whole = steps?.map((s) => s.value) ?? thing.treatments.map((_, i) => i + 1);
  const [low, high] = [Math.min(...whole, ...given), Math.max(...whole, ...given)];
  const columns = [...new Set([...whole, ...given])].sort((a, b) => a - b);
  const text = (value: number) => steps?.find((s) => s.value === value)?.text ?? '';
  return (
    <table className="score-strip" aria-label={`${thing.name}, every score`}>
      <thead>
        <tr>
          <td />
          {columns.map((c) => (
            <th key={c} scope="col" title={text(c)}>
              <span className="num">{c}</span>
              {(c === low || c === high) && <span className="small quiet"> {text(c)}</span>}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {thing.treatments.map((t) => (
          <tr key={t.id}>
            <th scope="row">{nameOf(t.id)}</th>
            {columns.map((c) => {
              const n = t.values.filter((v) => v === c).length;
              return (
                <td key={c}>
                  {n > 0 && <span className="sr-only">{n} times</span>}
                  {Array.from({ length: n }, (_, i) => (
                    <Tessera key={i} index={indexOf(t.id)} size={16} />
                  ))}
                </td>
              );
            })}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
