import { describe, expect, it } from 'vitest';
import { plan } from '../../testing/trial';
import { Plan } from '../../model/plan';
import { applyProtocol } from './applyProtocol';
import { colourScale } from './colours';
import { finishingRuleFor, untreatedBeside } from './protocol';
import { protocolOf, protocols } from '.';

const bare = {
  ...plan(),
  units: [],
  traits: [],
  rounds: [],
  primaryTraitId: null,
  finishingRule: '',
};

it('there is one for each kind of trial, each with a name and id of its own', () => {
  expect(protocols).toHaveLength(20);
  expect(new Set(protocols.map((p) => p.id)).size).toBe(20);
  expect(new Set(protocols.map((p) => p.name)).size).toBe(20);
  expect(protocolOf(null)).toBeNull();
  expect(protocolOf('cuttings')?.plantsPerUnit).toBe(5);
});

describe.each(protocols.map((p) => [p.id, p] as const))('%s', (_, p) => {
  const filled = applyProtocol(bare, p);
  it('fills a plan that stands', () => {
    expect(Plan.safeParse(filled).error).toBeUndefined();
    expect(filled.primaryTraitId).toBe(filled.traits[0]!.id);
    expect(filled.finishingRule).not.toBe('');
  });
  it('names the day of the last round in its rule for the end, which follows that day', () => {
    const last = Math.max(...p.rounds.map((r) => r.day));
    expect(p.finishingRule).toMatch(new RegExp(`\\bday ${last}\\b`));
    const later = finishingRuleFor(p, [{ day: 3 }, { day: 1234 }]);
    expect(later).toBe(p.finishingRule.replace(`day ${last}`, 'day 1234'));
    expect(finishingRuleFor(p, [])).toBe(p.finishingRule);
  });
  it('measures every trait in some round, the deciding one in the last', () => {
    const measured = new Set(p.rounds.flatMap((r) => r.traits));
    expect(p.traits.map((t) => t.key).filter((k) => !measured.has(k))).toEqual([]);
    const known = new Set(p.traits.map((t) => t.key));
    expect([...measured].filter((k) => !known.has(k))).toEqual([]);
    expect(p.rounds.at(-1)!.traits).toContain(p.traits[0]!.key);
    const days = p.rounds.map((r) => r.day);
    expect([...days].sort((a, b) => a - b)).toEqual(days);
  });
  it('says the day it ends in its finishing rule', () => {
    expect(p.finishingRule).toContain(`day ${p.rounds.at(-1)!.day}`);
  });
  it('describes every step of its scales, and says what goes wrong', () => {
    for (const t of p.traits.filter((x) => x.kind === 'score')) {
      expect(t.scale!.length).toBeGreaterThanOrEqual(5);
      expect(t.scale!.every((s) => s.text.length > 2)).toBe(true);
    }
    expect(p.faults.length).toBeGreaterThan(0);
    expect(p.cautions.length).toBeGreaterThan(0);
    expect(p.cvPercent).toBeGreaterThan(0);
  });
});

it('what was written already stays', () => {
  const kept = applyProtocol({ ...bare, finishingRule: 'When I say.' }, protocols[0]!);
  expect(kept.finishingRule).toBe('When I say.');
  expect(kept.prediction).toBe(bare.prediction);
});

it('texts that a kind of trial filled in go with it; one’s own words stay', () => {
  const [first, second] = [
    protocols[0]!,
    protocols.find((p) => p.finishingRule !== protocols[0]!.finishingRule)!,
  ];
  const once = applyProtocol(bare, first);
  expect(applyProtocol(once, second).finishingRule).toBe(second.finishingRule);
  const own = { ...once, finishingRule: 'When the last one flowers.' };
  expect(applyProtocol(own, second).finishingRule).toBe('When the last one flowers.');
});

describe('the untreated control', () => {
  it.each([
    ['shoots-feed', 'Water'],
    ['lawn', 'Untreated'],
    ['soil-rows', 'Untreated'],
    ['lamps', null],
    ['additives', null],
  ] as const)('of %s is %s', (id, called) => expect(untreatedBeside(protocolOf(id))).toBe(called));
  it('of a blank protocol is water', () => expect(untreatedBeside(null)).toBe('Water'));
});

it.each([
  ['cherry tomato', 'green all over'],
  ['strawberries', 'green all over'],
  ['shade lawn', 'straw-coloured'],
  ['lemongrass', 'mostly yellow or brown'],
  ['basil', 'mostly yellow or brown'],
  ['', 'mostly yellow or brown'],
])('the colours of %s begin with “%s”', (crop, first) => expect(colourScale(crop)[0]).toBe(first));
