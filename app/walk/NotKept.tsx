import type { Plan } from '~core/model/plan';
import { planIndex } from '~core/plan/planIndex';
import { backToPad } from '../ui/keys';
import type { PutBy } from './walking';
import './NotKept.css';

interface Props<D> {
  plan: Plan;
  putBy: readonly PutBy<D>[];
  /** what was typed there */
  said: (draft: D) => string;
  /** puts it on the pad again */
  onTake: (putBy: PutBy<D>) => void;
  onDrop: (putBy: PutBy<D>) => void;
}

/** What was typed at stops that were left, and isn’t kept. */
export function NotKept<D>({ plan, putBy, said, onTake, onDrop }: Props<D>) {
  const units = planIndex(plan);
  const putRows = putBy.flatMap((p) => {
    const unit = units.unit(p.unitId);
    return unit ? [{ p, code: unit.code }] : [];
  });
  if (putRows.length === 0) return null;
  return (
    <div className="note open small left-typed" role="status">
      Typed, not kept:
      <ul>
        {putRows.map(({ p, code }) => (
          <li key={`${p.unitId}/${p.sample}`}>
            <span>
              <strong className="num">{code}</strong> {said(p.draft)}
            </span>
            <button
              type="button"
              className="link"
              aria-label={`Take up ${code}`}
              onClick={() => {
                onTake(p);
                backToPad();
              }}
            >
              Take up
            </button>
            <button type="button" className="link" aria-label={`Drop ${code}`} onClick={() => onDrop(p)}>
              Drop
            </button>
          </li>
        ))}
      </ul>
    </div>
  );
}
