import { plural } from '~core/quantity/format';
import type { ReactNode } from 'react';
import { sayBrokenSeal } from '~core/log/verifySeal';
import { positionKey, readingsOf } from '~core/model/positions';
import { usePost } from '../../form/usePost';
import { Legend } from '../../ui/Legend';
import { ArrangePlan } from './ArrangePlan';
import { BlindPart } from '../seal/BlindPart';
import { DesignPart } from './DesignPart';
import { SealPart } from '../seal/SealPart';
import { tintOf } from './tint';
import type { LayoutData } from './layoutData';

/** Who stands where: the plan to drag on, the design, who sees names, the seal. */
export function ArrangeView(data: LayoutData & { head: ReactNode }) {
  const { id, plan, positions, seal, blind, revealed, head } = data;
  const post = usePost();
  const readings = readingsOf(plan.gradient);
  return (
    <div className="with-side">
      <div className="main">
        {head}
        {plan.areas.length > 0 && plan.units.length > 0 ? (
          <>
            <ArrangePlan
              plan={plan}
              positions={positions}
              tint={tintOf(readings)}
              move={(unitId, to) => post({ intent: 'move', unitId, to, reason: '' })}
            />
            <Legend plan={plan} />
            <p className="small quiet" style={{ marginTop: '0.6rem' }}>
              {plan.design?.kind === 'rcbd' &&
                'Every block (b1, b2 …) is a run of neighbours that holds each contender once.'}
              {plan.design?.kind === 'latin' &&
                'Every row and every column of the square holds each contender once.'}
              {plan.design?.kind === 'split' &&
                `Every main plot (b1, b2 …) holds each contender once${plan.design.settings.length > 0 ? `; main plots are given ${plan.design.settings.join(', ')} by chance: ${[...new Map(plan.units.map((u) => [u.block, u.setting]))].map(([b, s]) => `b${b} ${s}`).join(', ')}` : ''}.`}
              {positions.size > 0 && readings.size > 0 && ' The ground is coloured by the light map.'}
              {plan.units.some((u) => readings.size > 0 && !readings.has(positionKey(u.position))) &&
                ' Some positions weren’t read.'}
            </p>
          </>
        ) : (
          <div className="empty">
            <h2>Nothing stands here yet</h2>
            <p>
              Say how many {plural(plan.unitNoun)} of each contender there are, and let chance lay them out:
              an area that just holds them is made, and can be changed under Areas. Or draw the areas first.
              For example: two shelf levels of 2 × 5, five {plural(plan.unitNoun)} of each of four contenders,
              in blocks.
            </p>
          </div>
        )}
      </div>
      <aside className="side stack">
        <DesignPart key={id} plan={plan} locked={seal !== null} />
        <BlindPart
          blinding={plan.blinding}
          sealed={seal !== null}
          blind={blind}
          revealedAt={revealed?.at ?? null}
          keyMissing={data.keyMissing}
          trialId={id}
        />
        <SealPart
          trialId={id}
          seal={seal}
          missing={data.missing}
          canBreakSeal={data.canBreakSeal}
          openFindings={data.openFindings}
          planRev={data.planRev}
          lateDays={data.lateDays}
          broken={sayBrokenSeal(data.sealCheck)}
        />
      </aside>
    </div>
  );
}
