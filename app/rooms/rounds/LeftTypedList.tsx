import type { Plan } from '~core/model/plan';
import { planIndex } from '~core/plan/planIndex';
import type { LeftTyped } from './leftTyped';
import './LeftTyped.css';

interface Props {
  plan: Plan;
  left: readonly LeftTyped[];
  /** of a figure on the pad */
  unit: string;
  /** puts it on the pad again */
  onTake: (left: LeftTyped) => void;
  onDrop: (left: LeftTyped) => void;
}

/** What was typed at units that were left, and isn’t kept. */
export function LeftTypedList({ plan, left, unit, onTake, onDrop }: Props) {
  const units = planIndex(plan);
  const shown = left.flatMap((l) => {
    const at = units.unit(l.unitId);
    return at ? [{ l, code: at.code, what: l.text === '' ? 'words' : `${l.text} ${unit}`.trim() }] : [];
  });
  if (shown.length === 0) return null;
  return (
    <div className="note open small left-typed" role="status">
      Typed, not kept:
      <ul>
        {shown.map(({ l, code, what }) => (
          <li key={`${l.unitId}/${l.sample}`}>
            <span>
              <strong className="num">{code}</strong> {what}
            </span>
            <button type="button" className="link" aria-label={`Take up ${code}`} onClick={() => onTake(l)}>
              Take up
            </button>
            <button type="button" className="link" aria-label={`Drop ${code}`} onClick={() => onDrop(l)}>
              Drop
            </button>
          </li>
        ))}
      </ul>
    </div>
  );
}
