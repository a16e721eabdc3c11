import { memo } from 'react';
import type { Plan } from '~core/model/plan';
import { Tessera, tesseraLetter } from './Tessera';

/** Which tile is which contender. */
export const Legend = memo(function Legend({ plan }: { plan: Plan }) {
  return (
    <div className="legend">
      {plan.treatments.map((t, i) => (
        <span className="who" key={t.id}>
          <Tessera index={i} size={20} />
          <span>
            <strong>{tesseraLetter(i)}</strong> {t.name}
          </span>
        </span>
      ))}
    </div>
  );
});
