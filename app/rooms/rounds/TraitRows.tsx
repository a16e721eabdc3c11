import type { Trait } from '~core/model/plan';

interface Props {
  traits: readonly Trait[];
  chosen: Trait;
  /** how many units have each, of how many */
  doneOf: ReadonlyMap<string, { done: number; of: number; part: number; yes: number | null }>;
  onTrait: (trait: Trait) => void;
  unitNoun: string;
  /** all traits of a unit one after the other, before the next unit */
  byUnit: boolean;
  onByUnit: (byUnit: boolean) => void;
}

/** The traits of a round beside the pad, with how far each is, and in which order they are walked. */
export function TraitRows({ traits, chosen, doneOf, onTrait, unitNoun, byUnit, onByUnit }: Props) {
  return (
    <>
      {traits.map((t) => (
        <button
          type="button"
          className="pad-row"
          key={t.id}
          onClick={() => onTrait(t)}
          aria-pressed={t.id === chosen.id}
          style={{ fontWeight: t.id === chosen.id ? 600 : 400 }}
        >
          <span>{t.name}</span>
          <span className="num small">
            {doneOf.get(t.id)?.done} of {doneOf.get(t.id)?.of}
            {doneOf.get(t.id)?.yes != null && `, ${doneOf.get(t.id)!.yes} yes`}
            {(doneOf.get(t.id)?.part ?? 0) > 0 && `, ${doneOf.get(t.id)!.part} in part`}
          </span>
        </button>
      ))}
      {traits.length > 1 && (
        <label className="pad-row" style={{ cursor: 'pointer' }}>
          <span>All of a {unitNoun} in one go</span>
          <input type="checkbox" checked={byUnit} onChange={(e) => onByUnit(e.target.checked)} />
        </label>
      )}
    </>
  );
}
