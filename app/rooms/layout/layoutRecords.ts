import { z } from 'zod';
import { positionsOf } from '~core/design/layOut';
import type { Plan, Position } from '~core/model/plan';
import { positionKey } from '~core/model/positions';
import { recordForm } from '../../form/recordForm';
import { fieldText, optionalNumber } from '../../form/schemaFields';
import { AreaForm, RotationForm, toAreasForm } from './layoutForms';

/** The plan with these places; a layout that would have holes isn't the one that was drawn: it goes. */
function withAreas(plan: Plan, form: z.output<typeof AreaForm>): Plan {
  const { unitShape, unitWidthCm, spares } = form;
  // What is round is as deep as it is wide.
  const unitDepthCm = unitShape === 'round' ? unitWidthCm : form.unitDepthCm;
  const { inches: _, ...rest } = plan;
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
  const sizes = { unitShape, unitWidthCm, unitDepthCm, ...(form.inches && { inches: form.inches }) };
  return { ...rest, ...sizes, spares, areas, gradient, units };
}

export const areasRecord = recordForm({
  name: 'areas',
  // A plan without places shows one to start from, which isn't saved yet.
  shown: toAreasForm,
  schema: AreaForm,
  apply: withAreas,
});

const atLeast0 = () => optionalNumber().pipe(z.number().min(0, 'Not below 0.').nullable());

/** Start sizes, by unit. */
export const sizesRecord = recordForm({
  name: 'sizes',
  shown: (plan: Plan) => ({
    sizes: Object.fromEntries(plan.units.map((u) => [u.id as string, fieldText(u.startSize)])),
  }),
  schema: z.object({ sizes: z.record(z.string(), atLeast0()) }),
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
  shown: ({ areas, gradient }: Plan) => {
    const read = new Map((gradient?.readings ?? []).map((r) => [positionKey(r.position), r.value]));
    return {
      name: gradient?.name ?? 'Light',
      unit: gradient?.unit ?? 'µmol m⁻² s⁻¹',
      at: Object.fromEntries(
        cellsOf({ areas }).map((p) => [positionKey(p), fieldText(read.get(positionKey(p)))]),
      ),
    };
  },
  schema: z.object({
    name: z.string().trim().min(1, 'Say what was read.').max(60),
    unit: z.string().trim().max(30),
    at: z.record(z.string(), optionalNumber()),
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
  shown: ({ rotation }: Plan): z.input<typeof RotationForm> => ({
    everyDays: String(rotation?.everyDays ?? 2),
    within: rotation?.within ?? 'off',
  }),
  schema: RotationForm,
  apply: (plan, { everyDays, within }) => ({
    ...plan,
    rotation: within === 'off' ? null : { everyDays, within },
  }),
});
