import { useState } from 'react';
import type { Observation } from '~core/log/observation';
import type { UnitId } from '~core/model/ids';
import type { Trait, Unit } from '~core/model/plan';
import { GoBack, PadMore, SomethingOff, StandingValue } from '../UnitHeading';
import { FindUnit } from '../rounds/FindUnit';

interface Props {
  trait: Trait;
  /** what the log has of this unit */
  standing: Observation | undefined;
  units: Unit[];
  onFound: (unitId: UnitId) => void;
  onBack: () => void;
  onSomethingOff: () => void;
  /** on a phone: whether the pad is out */
  typing: boolean;
  onTyping: (typing: boolean) => void;
  /** steady readings are taken by themselves; null without a scale */
  auto: boolean | null;
  onAuto: (auto: boolean) => void;
}

/** The rows beneath the pad of the scale: what is kept, back, what is off, and what is seldom asked for. */
export function BesideScale(p: Props) {
  const [more, setMore] = useState(false);
  return (
    <>
      {p.standing && <StandingValue label="Kept" standing={p.standing} trait={p.trait} />}
      <GoBack onBack={p.onBack} />
      <button
        type="button"
        className="pad-row phone-only"
        onClick={() => p.onTyping(!p.typing)}
        aria-expanded={p.typing}
      >
        {p.typing ? 'Pad away' : 'Type the weight'}
      </button>
      <SomethingOff onOpen={p.onSomethingOff} />
      <PadMore more={more} onMore={setMore} />
      <div className={more ? 'pad-more open' : 'pad-more'}>
        {p.auto !== null && (
          <label className="pad-row" style={{ cursor: 'pointer' }}>
            <span>Take steady readings by itself</span>
            <input type="checkbox" checked={p.auto} onChange={(e) => p.onAuto(e.target.checked)} />
          </label>
        )}
        <FindUnit units={p.units} onFound={p.onFound} />
      </div>
    </>
  );
}
