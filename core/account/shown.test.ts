// One letter and tile for a contender, before and after the opening of the codes.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { deriveState } from '../log/state';
import { entryKinds } from '../log/kinds';
import { logWords } from '../log/words';
import type { BlindKey } from '../log/trial';
import type { Plan } from '../model/plan';
import { againstIn } from '../plan/against';
import { controlOf } from '../plan/control';
import { planIndex } from '../plan/planIndex';
import { filmingBlocks } from '../report/filming';
import { entry, plan, trialOf } from '../testing/trial';
import { trialReview } from '../report/trialReview';
import { shownOf } from './shown';

const names = ['Water', 'Prova', 'Duo', 'Cheap'];
const p: Plan = { ...plan({ treatments: names }), blinding: 'scorer' };
const keyOf = (order: readonly string[]): BlindKey => ({
  order: order.map((n) => p.treatments.find((t) => t.name === n)!.id),
});
const reveal = entry({ kind: 'reveal', reason: '' });
const tiles = (plan_: Plan) => p.treatments.map((t) => planIndex(plan_).treatmentOrder(t.id));

describe('a letter for ever', () => {
  it('is the key’s, whatever the key, and the opening adds the name', () => {
    fc.assert(
      fc.property(fc.shuffledSubarray(names, { minLength: 4 }), (order) => {
        const key = keyOf(order);
        const closed = shownOf(deriveState(p, []), key);
        const open = shownOf(deriveState(p, [reveal]), key);
        expect(tiles(open.shown.plan)).toEqual(tiles(closed.shown.plan));
        expect(tiles(open.state.plan)).toEqual(p.treatments.map((t) => order.indexOf(t.name)));
        expect(open.state.plan.treatments.map((t) => t.name)).toEqual(order);
        expect(closed.shown.plan.treatments.some((t) => names.includes(t.name))).toBe(false);
      }),
    );
  });
  it('stays on a device without the key too', () => {
    const [closed, open] = [[], [reveal]].map((log) => shownOf(deriveState(p, log), null));
    expect(tiles(open!.shown.plan)).toEqual(tiles(closed!.shown.plan));
  });
  it('changes nothing of who the control is: two untreated arms, whichever has the letter A', () => {
    const two: Plan = {
      ...p,
      treatments: p.treatments.map((t, i) => ({ ...t, role: i < 2 ? 'untreated' : 'test' })),
    };
    for (const order of [names, [...names].reverse()]) {
      const { state } = shownOf(deriveState(two, [reveal]), keyOf(order));
      expect(controlOf(state.plan)!.name).toBe('Water');
      expect(againstIn(state.plan)).toEqual(againstIn(two));
    }
  });
  it('is the plan’s own in an open trial', () => {
    const state = deriveState({ ...p, blinding: 'open' }, []);
    expect(shownOf(state, null)).toMatchObject({ blind: false, state, shown: state });
  });
});

describe('who was which letter', () => {
  const key = keyOf(['Duo', 'Water', 'Cheap', 'Prova']);
  it('is said by review, script and log alike', () => {
    const { state } = shownOf(deriveState(p, [reveal]), key);
    const said = 'A was Duo, B Water, C Cheap and D Prova';
    const review = trialReview(trialOf(p, [reveal], { key }), '2026-03-20')!;
    expect(JSON.stringify(review.blocks)).toContain(said);
    const script = JSON.stringify(filmingBlocks(state, null, null, (id) => id));
    expect(script).toContain('A is Duo');
    expect(script).toContain('B is Water');
    expect(entryKinds.reveal.say(reveal as never, logWords(state.plan))).toContain(said);
    expect(entryKinds.reveal.say(reveal as never, logWords(state.plan, undefined, true))).not.toContain(
      'Duo',
    );
  });
});
