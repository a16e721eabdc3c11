import { sayValue } from '~core/log/sayValue';
import { backToPad } from '../ui/keys';
import type { Observation } from '~core/log/state';
import type { Trait, Unit } from '~core/model/plan';
import { tesseraLetter } from '../ui/Tessera';

/** The unit's number as people say it: LOG-08 → 8. */
export const spokenNumber = (unit: Unit): string => unit.code.replace(/^[A-Z]+-0*/, '');

/** Which unit the pad stands on. @param index of its treatment */
export function UnitHeading({
  unit,
  noun,
  index,
  parts = 1,
}: {
  unit: Unit;
  noun: string;
  index: number;
  /** vessels it goes on in */
  parts?: number | undefined;
}) {
  return (
    <h2>
      <span style={{ textTransform: 'capitalize' }}>{noun}</span> {spokenNumber(unit)}{' '}
      <span className="num quiet small" style={{ fontWeight: 400 }}>
        {unit.code} · {tesseraLetter(index)}
        {parts > 1 && ` · all ${parts} vessels of it`}
      </span>
    </h2>
  );
}

/** The value that stands, with what it replaced struck through. */
export function StandingValue({
  label,
  standing,
  trait,
}: {
  label: string;
  standing: Observation;
  trait: Trait;
}) {
  return (
    <div className="pad-row">
      <span>{label}</span>
      <span className="num">
        {standing.earlier.map((e, i) => (
          <span key={i} className="was">
            {sayValue({ value: e.value, outOf: standing.outOf }, trait)}{' '}
          </span>
        ))}
        {sayValue(standing, trait)}
      </span>
    </div>
  );
}

/** Opens the dialog for a deviation, a death, an exclusion or a remark. */
export function SomethingOff({ onOpen }: { onOpen: () => void }) {
  return (
    <button type="button" className="pad-row" onClick={onOpen}>
      <span>Something off?</span>
      <kbd>.</kbd>
    </button>
  );
}

/** Back to the stop before, and the keyboard to the pad. */
export function GoBack({ onBack }: { onBack: () => void }) {
  return (
    <button
      type="button"
      className="pad-row"
      onClick={() => {
        onBack();
        backToPad();
      }}
    >
      <span>Back to the one before</span>
    </button>
  );
}

/** On a phone: shows what is seldom asked for at the pad, or puts it away. */
export function PadMore({ more, onMore }: { more: boolean; onMore: (more: boolean) => void }) {
  return (
    <button type="button" className="pad-row phone-only" onClick={() => onMore(!more)} aria-expanded={more}>
      {more ? 'Less' : 'More'}
    </button>
  );
}
