import type { UnitId } from '~core/model/ids';
import type { Unit } from '~core/model/plan';

/** Units something is typed for that isn’t kept, beside the one at hand; pressed, one is gone to. */
export function OtherTyped({
  units,
  typed,
  here,
  onGo,
}: {
  units: readonly Unit[];
  typed: ReadonlyMap<UnitId, unknown>;
  here: UnitId;
  onGo: (id: UnitId) => void;
}) {
  const others = units.filter((u) => u.id !== here && typed.has(u.id));
  if (others.length === 0) return null;
  return (
    <p className="note open small inline-row" role="status">
      Typed, not kept:{' '}
      {others.map((u) => (
        <button key={u.id} type="button" className="link num" onClick={() => onGo(u.id)}>
          {u.code}
        </button>
      ))}
    </p>
  );
}
