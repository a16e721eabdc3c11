import { z } from 'zod';
import { positionsOf } from '~core/design/layOut';
import type { AreaId } from '~core/model/ids';
import { newId } from '~core/model/newId';
import { Area, type AreaKind, Gradient, Plan, type Position, Rotation } from '~core/model/plan';
import { positionKey } from '~core/model/positions';
import { type SizeUnits, sizeUnitsOf } from '~core/quantity/sizeText';
import { protocolOf } from '~core/schedule/protocols';
import { areaName } from '~core/schedule/withRoom';
import { recordForm } from '../../form/recordForm';
import { optionalNumber, optionalSize, shownIn, ticked, typedNumber } from '../../form/schemaFields';

const count = (of: z.ZodNumber) => typedNumber('How many?').pipe(of);

const areaRow = (units?: SizeUnits) =>
  z.object({
    ...Area.omit({ reserved: true }).shape,
    rows: count(Area.shape.rows),
    columns: count(Area.shape.columns),
    widthCm: optionalSize('length', units),
    depthCm: optionalSize('length', units),
  });
type AreaRow = z.output<ReturnType<typeof areaRow>>;

const places = (units?: SizeUnits) =>
  z.object({
    inches: ticked(),
    unitShape: Plan.shape.unitShape,
    unitWidthCm: optionalSize('length', units),
    unitDepthCm: optionalSize('length', units),
    spares: typedNumber('How many? 0 for none.').pipe(Plan.shape.spares),
    areas: z.array(areaRow(units)).min(1, 'At least one area.'),
  });

/** A place to be filled in: the next one, of the kind that is usual. */
const newArea = (n: number, kind: AreaKind = 'shelf', id = newId<AreaId>()): AreaRow => ({
  ...{ id, name: areaName(kind, n), kind },
  ...{ rows: 2, columns: 5, widthCm: null, depthCm: null },
});

/** The next row of the form. */
export const emptyArea = (...of: Parameters<typeof newArea>) => shownIn(areaRow(), newArea(...of));

/** The kind of place that is usual for the kind of trial. */
export const usualKind = (plan: Pick<Plan, 'protocolId'>): AreaKind | undefined =>
  protocolOf(plan.protocolId)?.area;

/** The plan with these places; a layout that would have holes isn't the one that was drawn: it goes. */
function withAreas(plan: Plan, form: z.output<ReturnType<typeof places>>): Plan {
  const { unitShape, unitWidthCm, spares } = form;
  // What is round is as deep as it is wide.
  const unitDepthCm = unitShape === 'round' ? unitWidthCm : form.unitDepthCm;
  const areas = form.areas.map((a) => ({
    ...a,
    reserved: (plan.areas.find((old) => old.id === a.id)?.reserved ?? []).filter(
      (c) => c.row < a.rows && c.column < a.columns,
    ),
  }));
  const fits = (p: Position) => {
    const area = areas.find((a) => a.id === p.areaId);
    return area !== undefined && p.row < area.rows && p.column < area.columns;
  };
  const gradient = plan.gradient && {
    ...plan.gradient,
    readings: plan.gradient.readings.filter((r) => fits(r.position)),
  };
  const units = plan.units.every((u) => fits(u.position)) ? plan.units : [];
  return {
    ...plan,
    inches: form.inches,
    unitShape,
    unitWidthCm,
    unitDepthCm,
    spares,
    areas,
    gradient,
    units,
  };
}

export const areasRecord = recordForm({
  name: 'areas',
  schema: places(),
  in: (plan) => places(sizeUnitsOf(plan)),
  // A plan without places shows one to start from, which isn't saved yet.
  of: (plan: Plan) => ({
    ...plan,
    areas: plan.areas.length > 0 ? plan.areas : [newArea(1, usualKind(plan), `${plan.id}-area` as AreaId)],
  }),
  apply: withAreas,
});

/** A unit's size at the start, as it is typed. */
export const startSize = optionalNumber().pipe(z.number().min(0, 'Not below 0.').nullable());

/** What was read at a position, as it is typed. */
export const placeReading = optionalNumber();

/** Start sizes, by unit. */
export const sizesRecord = recordForm({
  name: 'sizes',
  of: (plan: Plan) => ({ sizes: Object.fromEntries(plan.units.map((u) => [u.id, u.startSize])) }),
  schema: z.object({ sizes: z.record(z.string(), startSize) }),
  apply: (plan, { sizes }) => ({
    ...plan,
    units: plan.units.map((u) => ({ ...u, startSize: u.id in sizes ? sizes[u.id]! : u.startSize })),
  }),
});

/** Every position of a plan's areas. */
export const cellsOf = (plan: Pick<Plan, 'areas'>): Position[] =>
  positionsOf(plan.areas).map((c) => ({
    ...{ areaId: c.area as Position['areaId'], row: c.row, column: c.column },
  }));

/** What was read at each position: light, warmth. */
export const readingsRecord = recordForm({
  name: 'readings',
  of: ({ areas, gradient }: Plan) => {
    const read = new Map((gradient?.readings ?? []).map((r) => [positionKey(r.position), r.value]));
    return {
      name: gradient?.name ?? 'Light',
      unit: gradient?.unit ?? 'µmol m⁻² s⁻¹',
      at: Object.fromEntries(
        cellsOf({ areas }).map((p) => [positionKey(p), read.get(positionKey(p)) ?? null]),
      ),
    };
  },
  schema: z.object({
    name: Gradient.shape.name,
    unit: Gradient.shape.unit,
    at: z.record(z.string(), placeReading),
  }),
  apply: (plan, { name, unit, at }) => {
    const readings = cellsOf(plan).flatMap((position) => {
      const value = at[positionKey(position)] ?? null;
      return value === null ? [] : [{ position, value }];
    });
    return { ...plan, gradient: readings.length > 0 ? { name, unit, readings } : null };
  },
});

/** Whether units go round, how often and within what. */
export const rotationRecord = recordForm({
  name: 'rotation',
  of: ({ rotation }: Plan) => ({
    everyDays: rotation?.everyDays ?? 2,
    within: rotation?.within ?? ('off' as const),
  }),
  schema: z.object({
    everyDays: typedNumber('Every how many days?').pipe(Rotation.shape.everyDays),
    within: z.enum([...Rotation.shape.within.options, 'off']),
  }),
  apply: (plan, { everyDays, within }) => ({
    ...plan,
    rotation: within === 'off' ? null : { everyDays, within },
  }),
});
