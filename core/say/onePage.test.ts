// The verdict's page: each sentence with data that make it and data that don't.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { AuditFinding } from '../fairness/audit';
import { deriveState } from '../log/state';
import type { PackId, ProductId } from '../model/ids';
import type { CardHeading } from '../model/judgement';
import { harvest, plan, product, use } from '../testing/trial';
import { findingOf } from '../account/findingInput';
import { noCosts } from '../model/judgement';
import { makeCard } from '../scorecard/card';
import { sayValue, whoTakes } from './answer';
import { costsOf } from './costWords';
import { sayClaimCount, sayHeadings, sayRetest, sayWhoTakes } from './onePage';
import { type ClaimVerdict, type JudgedClaim, claimVerdictNames } from '../verdict/claims';
import { makeVerdict } from '../verdict/verdict';

const names = ['Water', 'A', 'B'];
const base = plan({ treatments: names, replicates: 4 });
const p = {
  ...base,
  products: [
    product({
      id: 'feed' as ProductId,
      packs: [
        ...[{ id: 'pack' as PackId, size: 1, unit: 'L' as const, priceMinor: 1000, currency: 'EUR' }].map(
          (k) => ({ ...k, boughtOn: null, count: 1 }),
        ),
      ],
    }),
  ],
  treatments: base.treatments.map((t, i) => (i === 0 ? t : { ...t, products: [use({ amount: 10 * i })] })),
};
const around = (m: number, by: number) => [-1.5, -0.5, 0.5, 1.5].map((x) => m + x * by);
function page(means: number[], by = 1) {
  const state = deriveState(p, harvest(Object.fromEntries(names.map((n, i) => [n, around(means[i]!, by)]))));
  const f = findingOf(state, p.traits[0]!);
  if (!f.ok) throw new Error(f.error.tag);
  const verdict = makeVerdict(p, f.value, (id) => id, { state });
  const card = { plan: p, findings: [f.value], lines: verdict.lines, nameOf: (id: string) => id, panels: [] };
  return { verdict, card, state, finding: f.value };
}
const heading = (id: string, from: CardHeading['from'], weight = 50): CardHeading => ({
  ...{ id, name: id, weight, from },
});
const weight = heading('Yield', { kind: 'trait', traitId: p.traits[0]!.id });
const cost = heading('Low cost', { kind: 'cost' });

describe('heading by heading', () => {
  it('who wins each, how surely, and all together', () => {
    const { card } = page([50, 60, 80]);
    const said = sayHeadings(card, [weight, cost]);
    expect(said[0]).toBe('Yield: B comes first, by its own finding.');
    expect(said[1]).toMatch(/^Low cost: Water /);
    expect(said[2]).toMatch(/^All together, by the weights of the card: /);
    expect(sayWhoTakes(card, [weight, cost])).toEqual([
      'Who counts yield alone takes B.',
      'Who counts low cost alone takes Water.',
    ]);
  });
  it('little separates two that are alike; one heading has nothing to put together', () => {
    const said = sayHeadings(page([50, 70, 70.2], 4).card, [weight]);
    expect(said).toHaveLength(1);
    expect(said[0]).toMatch(/^Yield: (A and B|B and A): neither is told to be better than the other/);
    // Nobody is sent to one of two that nothing separates.
    const takes = sayWhoTakes(page([50, 70, 70.2], 4).card, [weight]);
    expect(takes).toEqual([expect.stringMatching(/is left with [AB] and [AB]: nothing separates them\.$/)]);
  });
  it('a heading without figures is named, no heading says nothing', () => {
    const { card } = page([50, 60, 80]);
    const none = heading('Taste', { kind: 'panel', sessionId: 'gone', thing: 'liking' });
    expect(sayHeadings(card, [none])).toEqual(['Taste: there are no figures for it yet.']);
    expect(sayHeadings(card, [])).toEqual([]);
    expect(sayWhoTakes(card, [])).toEqual([]);
  });
});

describe('what the retest needs', () => {
  const { verdict } = page([50, 60, 80]);
  const fault = (severity: AuditFinding['severity'], accepted: string | null = null) =>
    ({ severity, accepted, title: 'Light differs' }) as AuditFinding;
  it('units, what their products cost, and what to put right', () => {
    // A unit costs 0, 10 and 20 cents: six of each are 1.80.
    expect(sayRetest(p, verdict, { units: 6, cvPercent: 7.4 }, [fault('weakens')])).toEqual([
      'Units varied by 7 %; 6 of each, 18 trays in all, see the difference that matters in four of five trials.',
      'Their products cost about €1.80.',
      'To put right: light differs.',
    ]);
  });
  it('nothing of what only is to be noted or was accepted, and no units without a spread', () => {
    expect(sayRetest(p, verdict, null, [fault('note'), fault('breaks', 'known')])).toEqual([
      'The same question again, laid out and sealed anew.',
    ]);
  });
  it('no sum where one has no price here', () => {
    const dollars = { ...p, currency: 'USD' };
    expect(sayRetest(dollars, verdict, { units: 6, cvPercent: 7 }, []).join(' ')).not.toContain('cost');
  });
});

describe('the answer in three looks', () => {
  const name = (id: string) => id;
  const answer = (means: number[], by = 1, over: Partial<typeof noCosts> = {}) => {
    const { verdict, card, state, finding } = page(means, by);
    const settings = { ...noCosts, ...over };
    const input = { verdict, finding, settings, plan: p, costs: costsOf(state, verdict, settings) };
    return {
      value: sayValue(input, name),
      takes: whoTakes(input, makeCard({ ...card, headings: [weight, cost] }), name),
    };
  };
  const dropper = (id: string) => ({
    lines: [{ id: 'd', name: 'dropper', minor: 4000, sharedBy: 1, seasons: 1, treatmentIds: [id] }],
  });
  it('one winner by pack price and with all that is counted is one', () => {
    // A: 10 ct for 20 g more; B: 20 ct for 22 g more.
    const { value, takes } = answer([50, 70, 72]);
    expect(value).toBe('A is the best value.');
    expect(takes[1]!.who).toEqual(['A']);
    expect(takes[2]!.text).toMatch(/^A |^Water |^B /);
  });
  it('two are said in one sentence, with what an hour is worth where it is counted', () => {
    expect(answer([50, 70, 72], 1, dropper('A')).value).toBe('By pack price A; with all that is counted B.');
    expect(answer([50, 70, 72], 1, { ...dropper('A'), hourMinor: 1200 }).value).toBe(
      'By pack price A; with all that is counted B.',
    );
    expect(answer([50, 70, 72], 1, { ...dropper('A'), hourMinor: 1200, minutesPerUnit: 0 }).value).toBe(
      'By pack price A; with all that is counted, your hour at €12.00, B.',
    );
    expect(answer([50, 70, 72], 1, dropper('B')).value).toBe('A is the best value.');
  });
  it('nobody takes what nothing separates, and nothing is the best value where nothing was shown', () => {
    const { value, takes } = answer([50, 51, 52], 12);
    expect(value).toBeNull();
    expect(takes[0]!.who).toEqual([]);
    expect(takes[0]!.text).toBe('Nobody was shown to be ahead.');
    expect(takes[1]!.who).toEqual([]);
  });
  it('one unit each: nothing was tested, which isn’t that nobody was ahead', () => {
    const state = deriveState(p, harvest({ Water: [50], A: [70], B: [72] }));
    const f = findingOf(state, p.traits[0]!);
    if (!f.ok) throw new Error(f.error.tag);
    const verdict = makeVerdict(p, f.value, name, { state });
    const input = {
      verdict,
      finding: f.value,
      settings: noCosts,
      plan: p,
      costs: costsOf(state, verdict, noCosts),
    };
    expect(sayValue(input, name)).toBeNull();
    expect(whoTakes(input, null, name)[0]).toMatchObject({
      who: [],
      text: 'Nothing was tested: there is no spread to judge by.',
    });
  });
  it('the trait is taken by all that nothing is better than, with their figures', () => {
    const { takes } = answer([50, 70, 70.5], 2);
    expect(new Set(takes[0]!.who)).toEqual(new Set(['A', 'B']));
    expect(takes[0]!.text).toBe('B 70.5 g and A 70.0 g. Nothing separates the two.');
    expect(answer([50, 60, 90]).takes[0]).toMatchObject({ who: ['B'], text: '90.0 g.' });
  });
});

describe('all claims, counted', () => {
  const judged = (...verdicts: ClaimVerdict[]) => verdicts.map((verdict) => ({ verdict })) as JudgedClaim[];
  it('says each kind there is and none that there isn’t', () => {
    expect(sayClaimCount(judged('inPart', 'notTested', 'inPart', 'contradicted'))).toBe(
      'Four claims: two in part, one contradicted and one not tested here.',
    );
    expect(sayClaimCount(judged('borneOut'))).toBe('One claim: borne out.');
    expect(sayClaimCount(judged('notShown', 'notShown'))).toBe('Two claims: two not shown.');
  });
  it('its counts add up to all, whatever they are', () => {
    const words = ['one', 'two', 'three', 'four', 'five', 'six'];
    const kinds = Object.keys(claimVerdictNames) as ClaimVerdict[];
    fc.assert(
      fc.property(fc.array(fc.constantFrom(...kinds), { minLength: 2, maxLength: 6 }), (verdicts) => {
        const [head, said] = sayClaimCount(judged(...verdicts))
          .toLowerCase()
          .split(' claims: ');
        expect(words.indexOf(head!) + 1).toBe(verdicts.length);
        for (const kind of kinds) {
          const counted = new RegExp(`(\\w+) ${claimVerdictNames[kind]}`).exec(said!)?.[1];
          expect(words.indexOf(counted ?? '') + 1).toBe(verdicts.filter((v) => v === kind).length);
        }
      }),
    );
  });
});
