import type { BodyOf } from '../log/entry';
import { nextCode } from '../log/extraUnits';
import { type TrialState, ofKind } from '../log/state';
import type { AreaId, TreatmentId, UnitId } from '../model/ids';
import type { Area } from '../model/plan';
import { freePosition } from './freePosition';

/** Positions of an area that is set up beside a full plan. */
const BESIDE_COLUMNS = 6;

/**
 * A unit more of a treatment: the next code, the first free position; where the plan has none, an area beside it.
 * @param ids of the unit and, should it be needed, of the area
 */
export function extraUnitOf(
  state: TrialState,
  { treatmentId, reason }: { treatmentId: TreatmentId; reason: string },
  ids: { unit: UnitId; area: AreaId },
): BodyOf<'extraUnit'> {
  const free = freePosition(state);
  const beside: Area = {
    id: ids.area,
    name: 'Beside the plan',
    kind: state.plan.areas[0]?.kind ?? 'bench',
    rows: 1,
    columns: BESIDE_COLUMNS,
    widthCm: null,
    depthCm: null,
    reserved: [],
  };
  const position = free ?? { areaId: beside.id, row: 0, column: 0 };
  // An area of earlier extra units goes along with each of them, so that taking one back doesn't take it from others.
  const added = ofKind(state, 'extraUnit').find((e) => e.body.beside?.id === position.areaId)?.body.beside;
  const own = free === null ? beside : added;
  return {
    kind: 'extraUnit',
    unit: {
      ...{ id: ids.unit, code: nextCode(state.plan), treatmentId, position },
      ...{ block: null, columnBlock: null, setting: null, startSize: null },
    },
    ...(own && { beside: own }),
    reason,
  };
}
