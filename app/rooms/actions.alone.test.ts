import '../testing/browserGlobals';
import { roundProgress } from '~core/schedule/rounds';
import { beforeEach, describe, expect, it } from 'vitest';
import type { TrialId } from '~core/model/ids';
import type { Plan } from '~core/model/plan';
import { height, plan, unitId, weighing } from '~core/testing/trial';
import { createTrial, loadTrial, sealPlan } from '../store/trials';
import { runCommand } from '../form/command';
import type { ActionResult } from '../form/schemaFields';
import { layoutCommands } from './layout/layoutActions';
import { logCommands } from './logActions';

const layoutAction = (id: string, data: unknown) =>
  runCommand(layoutCommands, id, data) as Promise<ActionResult>;

const logAction = (id: string, data: unknown) => runCommand(logCommands, id, data) as Promise<ActionResult>;

let n = 0;
let p: Plan;
beforeEach(async () => {
  n += 1;
  p = { ...plan({ treatments: ['Water', 'A'], replicates: 3 }), id: `acted-${n}` as TrialId };
  await createTrial(p);
});

const water = unitId('Water', 0);
const planRev = async (id: string) => (await loadTrial(id)).planRev;
const observations = async () => (await loadTrial(p.id)).state.observations;

describe('what the pad sends', () => {
  it('a value is kept; a second one for the same place corrects it', async () => {
    await logAction(p.id, { body: height(water, 5) });
    await logAction(p.id, { body: height(water, 6) });
    expect(await observations()).toMatchObject([{ value: 6, earlier: [{ value: 5 }] }]);
  });
  it('other rounds, samples, units and traits are places of their own', async () => {
    await logAction(p.id, { body: height(water, 5) });
    await logAction(p.id, { body: height(water, 6, 'r2') });
    await logAction(p.id, { body: height(water, 6, 'r1', 2) });
    await logAction(p.id, { body: height(unitId('A', 0), 6) });
    await logAction(p.id, { body: weighing(water, 50) });
    expect(await observations()).toHaveLength(5);
  });
  it('on another day: what happened then, written down now', async () => {
    const kept = await logAction(p.id, {
      body: height(water, 5),
      when: { date: '2026-03-05', time: '12:00' },
    });
    expect(kept).toEqual({ saved: true });
    const [line] = (await loadTrial(p.id)).log;
    expect(line!.at.slice(0, 10)).toBe('2026-03-05');
    expect(line!.recordedAt > line!.at).toBe(true);
    const never = await logAction(p.id, {
      body: height(water, 6),
      when: { date: '2999-01-01', time: '12:00' },
    });
    expect('errors' in never && never.errors.when).toMatch(/still to come/);
  });
  it('a round is closed with a reason, and opened again', async () => {
    const round = p.rounds[0]!;
    expect(await logAction(p.id, { close: { roundId: round.id, reason: ' ' } })).toHaveProperty('errors');
    expect(await logAction(p.id, { close: { roundId: round.id, reason: 'away' } })).toMatchObject({
      saved: true,
    });
    const closed = async () => roundProgress((await loadTrial(p.id)).state, '2030-01-01')[0]!;
    expect(await closed()).toMatchObject({ status: 'closed', closed: { reason: 'away' } });
    await logAction(p.id, { reopen: (await closed()).closed!.entryId });
    expect((await closed()).status).toBe('overdue');
  });
  it('values sent together are all kept, the last one standing', async () => {
    await Promise.all([4, 5, 6].map((v) => logAction(p.id, { body: height(water, v) })));
    expect(await observations()).toMatchObject([{ value: 6, earlier: [{ value: 4 }, { value: 5 }] }]);
  });
  it('a column goes in whole: new places, corrections, nothing where it says the same', async () => {
    await logAction(p.id, { body: height(water, 5) });
    await logAction(p.id, { body: height(unitId('A', 0), 7) });
    const kept = await logAction(p.id, {
      bodies: [height(water, 6), height(unitId('A', 0), 7), height(unitId('A', 1), 8)],
    });
    expect(kept).toMatchObject({
      saved: true,
      message: '3 values are in the log, 1 of them corrected; the old ones stay visible.',
    });
    expect((await loadTrial(p.id)).log).toHaveLength(4);
    expect((await observations()).map((o) => o.value)).toEqual([6, 7, 8]);
  });
  it.each([
    [{ bodies: [height(water, 5), { ...height(water, 5), value: 'tall' }] }, /number/],
    [{ bodies: [] }, /./],
    [{ body: weighing(water, -4) }, /less than the tare of 10 g/],
    [{ body: { ...height(water, 5), value: 'tall' } }, /number/],
    [{ body: { kind: 'note', unitId: null, text: '  ' } }, /Write what happened/],
    [{ body: { kind: 'exclusion', unitId: water, traitId: null, reason: '' } }, /Say why/],
    [{}, /./],
  ])('refuses %j and writes nothing', async (data, said) => {
    const result = await logAction(p.id, data);
    expect('errors' in result && Object.values(result.errors)[0]).toMatch(said);
    expect((await loadTrial(p.id)).log).toEqual([]);
  });
});

describe('what the Layout room does', () => {
  const design = (over = {}) =>
    layoutAction(p.id, {
      intent: 'design',
      kind: 'crd',
      replicates: '3',
      seed: '7',
      settings: '',
      ...over,
    });
  const area = (over = {}) => ({
    ...p.areas[0]!,
    rows: '3',
    columns: '2',
    widthCm: '',
    depthCm: '',
    ...over,
  });
  const areas = (...list: object[]) => ({
    what: 'areas',
    values: {
      ...{ intent: 'areas', unitShape: 'rectangle', unitWidthCm: '', unitDepthCm: '', spares: '0' },
      areas: list,
    },
  });
  const now = async () => (await loadTrial(p.id)).row.plan;

  it('what units share deals anew: areas for areas, and what was placed by hand stays', async () => {
    const share = (unitsShare: string) => layoutAction(p.id, { intent: 'share', unitsShare });
    await design();
    const before = (await now()).units.length;
    expect(before).toBeGreaterThan(0);
    expect(await share('nothing')).toMatchObject({ message: 'Each is a repeat of its own.' });
    expect((await now()).units).toHaveLength(before);
    expect(await share('place')).toMatchObject({ message: 'All in one area are one repeat: lay out again.' });
    expect((await now()).units).toEqual([]);
    // Areas that lack are made like the last one; each holds one contender.
    expect(await design({ kind: 'rcbd', replicates: '2', inEach: '3' })).toMatchObject({
      message: 'Units are laid out.',
    });
    const dealt = await now();
    expect([dealt.design!.kind, dealt.units[0]!.block]).toEqual(['crd', null]);
    expect(dealt.areas).toHaveLength(2 * dealt.treatments.length);
    for (const a of dealt.areas) {
      const here = dealt.units.filter((u) => u.position.areaId === a.id);
      expect(new Set(here.map((u) => u.treatmentId)).size).toBe(1);
    }
    await layoutAction(p.id, { intent: 'undo' });
    expect((await now()).units).toEqual([]);
    await share('nothing');
    await design({ kind: 'hand', replicates: '1' });
    const placed = (await now()).units.length;
    await share('place');
    expect((await now()).units).toHaveLength(placed);
  });
  it('lays out by seed; the same seed again gives the same', async () => {
    await design();
    const first = (await now()).units.map((u) => u.treatmentId);
    await design({ seed: '8' });
    await design();
    expect((await now()).units.map((u) => u.treatmentId)).toEqual(first);
  });
  it.each([
    [{ replicates: '' }, 'replicates', /How many/],
    [{ replicates: '2,5' }, 'replicates', /Whole number/],
    [{ replicates: '9' }, 'replicates', /18 units need 18 positions/],
    [{ seed: 'luck' }, 'seed', /isn’t a number/],
  ])('refuses %j at its field', async (over, field, said) => {
    const result = await design(over);
    expect('errors' in result && result.errors[field]).toMatch(said);
    expect((await now()).units).toEqual(p.units);
  });
  it('a smaller place takes the layout off; a larger one leaves it', async () => {
    await layoutAction(p.id, areas(area({ rows: '4', name: 'Shelf A' })));
    expect((await now()).units).toHaveLength(6);
    const result = await layoutAction(p.id, areas(area({ columns: '1' })));
    expect(result).toMatchObject({ message: /randomise again/ });
    expect((await now()).units).toEqual([]);
    await layoutAction(p.id, { intent: 'undo' });
    expect((await now()).units).toHaveLength(6);
  });
  it('a place needs a name and whole rows', async () => {
    const result = await layoutAction(p.id, areas(area({ name: ' ', rows: '1.5' })));
    expect(result).toEqual({
      errors: { 'areas.0.name': 'Give the area a name.', 'areas.0.rows': 'Whole rows.' },
    });
  });
  it('a move before the seal changes the plan, after it the log', async () => {
    const to = p.units[1]!.position;
    await layoutAction(p.id, { intent: 'move', unitId: water, to, reason: '' });
    expect((await now()).units.find((u) => u.id === water)!.position).toEqual(to);
    await sealPlan(p.id);
    const sealed = await now();
    await layoutAction(p.id, { intent: 'move', unitId: water, to: p.units[5]!.position, reason: 'lamp' });
    expect(await now()).toEqual(sealed);
    expect((await loadTrial(p.id)).state.positions.get(water)).toEqual(p.units[5]!.position);
  });
  it('seals only what is whole, and breaks the seal only before the first value', async () => {
    expect(await layoutAction(p.id, { intent: 'seal', seenPlanRev: await planRev(p.id) })).toMatchObject({
      saved: true,
    });
    expect(await design()).toEqual({ errors: { design: 'The plan is sealed; it isn’t changed any more.' } });
    expect(await layoutAction(p.id, { intent: 'breakSeal' })).toMatchObject({ saved: true });
    expect((await loadTrial(p.id)).state.seal).toBeNull();
    await layoutAction(p.id, { intent: 'seal', seenPlanRev: await planRev(p.id) });
    expect((await loadTrial(p.id)).state.seal).not.toBeNull();
    await logAction(p.id, { body: height(water, 5) });
    const refused = await layoutAction(p.id, { intent: 'breakSeal' });
    expect('errors' in refused && refused.errors.seal).toMatch(/logged already/);
  });
  it('says everything that is missing before the seal', async () => {
    const bare = { ...p, id: `bare-${n}` as TrialId, prediction: '', units: [] };
    await createTrial(bare);
    const result = await layoutAction(bare.id, { intent: 'seal', seenPlanRev: await planRev(bare.id) });
    expect('errors' in result && result.errors.seal).toBe(
      'Still missing: a prediction, written before the start; units on the plan.',
    );
  });
  it('refuses what it doesn’t know', async () => {
    expect(await layoutAction(p.id, { intent: 'burn' })).toHaveProperty('errors');
  });
});
