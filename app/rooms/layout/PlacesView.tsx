import type { ReactNode } from 'react';
import type { Position } from '~core/model/plan';
import { usePost } from '../../form/usePost';
import { PlanView, Reserved } from '../../ui/PlanView';
import { UnitFace, unitNumber, useTileInk } from '../../ui/UnitTile';
import { AreasForm } from './AreasForm';
import type { LayoutData } from './layoutData';

/** The places themselves: how many, how large, what is blocked and where guards stand. */
export function PlacesView({
  id,
  plan,
  positions,
  seal,
  head,
  placesElsewhere,
}: LayoutData & { head: ReactNode }) {
  const tileInk = useTileInk();
  const post = usePost();
  const sealed = seal !== null;
  const reserve = (position: Position) => post({ intent: 'reserve', position });
  const where = (p: Position) => `row ${p.row + 1}, position ${p.column + 1}`;
  const indexOf = (treatmentId: string) => plan.treatments.findIndex((t) => t.id === treatmentId);
  return (
    <div className="with-side alone">
      <div className="main">
        {head}
        {plan.areas.length > 0 && (
          <PlanView
            plan={plan}
            positions={positions}
            renderPlace={(position, unit) =>
              unit ? (
                <span className="tile" style={tileInk(indexOf(unit.treatmentId))} title={unit.code}>
                  <UnitFace
                    index={indexOf(unit.treatmentId)}
                    number={unitNumber(unit.code)}
                    block={unit.block}
                    value=""
                  />
                </span>
              ) : (
                <button
                  type="button"
                  className="place"
                  disabled={sealed}
                  aria-label={`Free: ${where(position)}; press to block`}
                  onClick={() => reserve(position)}
                >
                  <span className="small">free</span>
                </button>
              )
            }
            renderReserved={
              sealed
                ? undefined
                : (position, use) => (
                    <button
                      type="button"
                      className={`reserved ${use}`}
                      aria-label={`${use}: ${where(position)}; press to change`}
                      onClick={() => reserve(position)}
                    >
                      <span className="small">{use}</span>
                    </button>
                  )
            }
          />
        )}
        {plan.areas.length > 0 && (
          <p className="legend small">
            <span className="who">
              <span style={{ width: 64 }} className="key">
                <Reserved use="blocked" />
              </span>{' '}
              nothing can stand there
            </span>
            <span className="who">
              <span style={{ width: 64 }} className="key">
                <Reserved use="guard" />
              </span>{' '}
              a plant that isn’t measured, against the edge
            </span>
          </p>
        )}
        <AreasForm key={id} plan={plan} locked={sealed} elsewhere={placesElsewhere} />
      </div>
    </div>
  );
}
