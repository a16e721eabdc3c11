// Two tabs over one database. Each of these lost, turned round or overwrote something before.
import '../testing/browserGlobals';
import { beforeEach, describe, expect, it } from 'vitest';
import type { TrialId, TreatmentId } from '~core/model/ids';
import { blankTreatment } from '~core/model/blankPlan';
import { planSha256 } from '~core/plan/seal';
import { height, plan, unitId } from '~core/testing/trial';
import { onBench } from '../testing/browserGlobals';
import { type Tab, openTab, posted } from '../testing/tabs';

onBench('own');
const [one, two]: [Tab, Tab] = [await openTab('one'), await openTab('two')];
let n = 0;
let id: TrialId;

beforeEach(async () => {
  n += 1;
  id = `two-tabs-${n}` as TrialId;
  await one.createTrial({ ...plan(), id });
  await one.loadTrial(id);
  await two.loadTrial(id);
});

const planNow = async () => (await two.loadTrial(id)).row.plan;

describe('plans', () => {
  it('a seal made while the other tab saves stands for the plan that is stored, in 40 of 40 tries', async () => {
    for (let i = 0; i < 40; i++) {
      const trial = `race-${i}` as TrialId;
      await one.createTrial({ ...plan(), id: trial });
      await Promise.all([
        one.savePlan(trial, (x) => ({ ...x, prediction: `Saved ${i}.` })),
        two.sealPlan(trial),
        one.savePlan(trial, (x) => ({ ...x, winning: `Later ${i}.` })),
      ]);
      const { row, state } = await one.loadTrial(trial);
      expect(state.seal!.planSha256).toBe(planSha256(row.plan));
    }
  });

  it('two tabs that save different things at once keep both, in 30 of 30 tries', async () => {
    for (let i = 0; i < 30; i++) {
      await Promise.all([
        one.savePlan(id, (x) => ({ ...x, prediction: `One ${i}.` })),
        two.savePlan(id, (x) => ({ ...x, winning: `Two ${i}.` })),
      ]);
      expect(await planNow()).toMatchObject({ prediction: `One ${i}.`, winning: `Two ${i}.` });
    }
  });

  it('a form opened on an older plan is put together with what was saved meanwhile', async () => {
    const began = (await import('../rooms/question/questionForm')).questionRecord.shown(await planNow());
    await two.savePlan(id, (x) => ({ ...x, winning: 'More weight.' }));
    const saved = await one.questionAction(
      posted(id, { what: 'question', base: began, values: { ...began, prediction: 'A wins.' } }),
    );
    expect(saved).toMatchObject({ saved: true });
    expect(await planNow()).toMatchObject({ prediction: 'A wins.', winning: 'More weight.' });
  });

  it('where both changed the same field it is asked about, and nothing is lost', async () => {
    const began = (await import('../rooms/question/questionForm')).questionRecord.shown(await planNow());
    await two.savePlan(id, (x) => ({ ...x, prediction: 'Theirs.' }));
    const values = { ...began, prediction: 'Mine.', winning: 'Weight.' };
    const asked = await one.questionAction(posted(id, { what: 'question', base: began, values }));
    expect(asked).toMatchObject({
      conflicts: [{ path: 'prediction', theirs: 'Theirs.' }],
      merged: { prediction: 'Mine.', winning: 'Weight.' },
    });
    expect((await planNow()).prediction).toBe('Theirs.');
    // Saving again, from what was shown, is a choice.
    const { theirs, merged } = asked as { theirs: object; merged: object };
    await one.questionAction(posted(id, { what: 'question', base: theirs, values: merged }));
    expect(await planNow()).toMatchObject({ prediction: 'Mine.', winning: 'Weight.' });
  });

  it('Undo takes back this tab’s own change and leaves the other’s contender', async () => {
    await one.as(() => one.savePlan(id, (x) => ({ ...x, prediction: 'Changed.' })));
    await two.as(() =>
      two.savePlan(id, (x) => ({
        ...x,
        treatments: [...x.treatments, blankTreatment('B', 'test', 'B' as TreatmentId)],
      })),
    );
    expect(await one.as(() => one.undoPlan(id))).toEqual({ ok: true, value: true });
    const now = await planNow();
    expect(now.prediction).toBe('Yes.');
    expect(now.treatments.map((t) => t.name)).toEqual(['Water', 'A', 'B']);
    // The other tab's own Undo is still its own.
    expect(await two.as(() => two.undoDepth(id))).toBe(1);
  });

  it('Undo of something the other tab has changed since is refused in words, and nothing is done', async () => {
    await one.as(() => one.savePlan(id, (x) => ({ ...x, prediction: 'Mine.' })));
    await two.as(() => two.savePlan(id, (x) => ({ ...x, prediction: 'Theirs.' })));
    expect(await one.as(() => one.undoPlan(id))).toEqual({ ok: false, error: { tag: 'tangled' } });
    expect((await planNow()).prediction).toBe('Theirs.');
  });

  it('what was worked out from an older plan is refused with a message', async () => {
    const { planRev } = await one.loadTrial(id);
    await two.savePlan(id, (x) => ({ ...x, winning: 'Moved on.' }));
    const design = { ...plan().design!, balance: { candidates: 2000, spreadPercent: 1 } };
    for (const body of [
      { intent: 'balanced', ...design, seenPlanRev: planRev },
      { intent: 'seal', seenPlanRev: planRev },
    ]) {
      const said = await one.layoutAction(id, body);
      expect(Object.values((said as { errors: object }).errors)[0]).toMatch(/changed in another tab/);
    }
    expect((await two.loadTrial(id)).state.seal).toBeNull();
  });

  it('a cure of the audit is worked out on the plan as it now is', async () => {
    await two.savePlan(id, (x) => ({ ...x, winning: 'Kept.' }));
    expect(await one.fairnessAction(id, { intent: 'cure', ruleId: 'no-spares', seed: 1 })).toMatchObject({
      saved: true,
    });
    expect(await planNow()).toMatchObject({ winning: 'Kept.', spares: 2 });
  });
});

describe('the log and the review', () => {
  const values = async (tab: Tab) => (await tab.loadTrial(id)).state.observations.map((o) => o.value);

  it('a tab sees at once what the other wrote', async () => {
    await one.appendEntries(id, [height(unitId('A', 0), 5)]);
    expect(await values(two)).toEqual([5]);
    await two.appendEntries(id, [height(unitId('A', 1), 6)]);
    expect(await values(one)).toEqual([5, 6]);
  });

  it('lines written by both at once are all there, in an order both agree on', async () => {
    await Promise.all(
      Array.from({ length: 20 }, (_, i) =>
        (i % 2 ? one : two).appendEntries(id, [height(unitId('Water', i % 3), i)]),
      ),
    );
    const [a, b] = [await one.loadTrial(id), await two.loadTrial(id)];
    expect(a.log).toHaveLength(20);
    expect(new Set(a.log.map((e) => e.counter)).size).toBe(20);
    expect(b.log).toEqual(a.log);
    expect(b.state).toEqual(a.state);
  });

  it('review text and lines written one after the other in two tabs don’t drop out of memory', async () => {
    await one.saveReview(id, (r) => ({ ...r, introduction: 'Begun.' }));
    await two.appendEntries(id, [height(unitId('A', 0), 5)]);
    await one.saveReview(id, (r) => ({ ...r, conclusion: 'Done.' }));
    await two.appendEntries(id, [height(unitId('A', 1), 6)]);
    for (const tab of [one, two]) {
      const { row, log } = await tab.loadTrial(id);
      expect(row.review).toMatchObject({ introduction: 'Begun.', conclusion: 'Done.' });
      expect(log).toHaveLength(2);
    }
  });

  it('a value for a place the other tab has filled meanwhile becomes a correction of it', async () => {
    await one.logAction(id, { body: height(unitId('A', 0), 5) });
    await two.logAction(id, { body: height(unitId('A', 0), 7) });
    const { state } = await one.loadTrial(id);
    expect(state.observations).toMatchObject([{ value: 7, earlier: [{ value: 5 }] }]);
  });
});
