import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import canonicalize from 'canonicalize';
import { type Plan, kindOf } from '../model/plan';
import { countedFrom } from './control';
import { withoutDivisor } from './divisor';

/**
 * The plan as one exact line of text: JSON with sorted keys and no spaces (RFC 8785).
 * @example canonicalJson({ b: 1, a: [] }) // '{"a":[],"b":1}'
 */
export function canonicalJson(value: unknown): string {
  const text = canonicalize(value);
  if (text === undefined) throw new TypeError('Nothing to write as JSON.');
  return text;
}

/** SHA-256 (FIPS 180-4) of a value's canonical JSON, as 64 hexadecimal digits. */
export const sha256Of = (value: unknown): string => bytesToHex(sha256(utf8ToBytes(canonicalJson(value))));

/** SHA-256 of the canonical plan: what a seal says. */
export const planSha256 = (plan: Plan): string => sha256Of(plan);

/** What still keeps a plan from being sealed: the room where it is cured, and what is missing. */
export interface Missing {
  room: 'question' | 'contenders' | 'layout';
  what: string;
}

/** Everything a plan lacks before it can be sealed; empty when it is ready. */
export function missingForSeal(plan: Plan): Missing[] {
  const missing: Missing[] = [];
  const need = (absent: boolean, room: Missing['room'], what: string) => {
    if (absent) missing.push({ room, what });
  };
  need(plan.prediction === '', 'question', 'a prediction, written before the start');
  need(plan.traits.length === 0, 'question', 'at least one trait to measure');
  need(plan.traits.length > 0 && plan.primaryTraitId === null, 'question', 'which trait decides');
  need(plan.smallestDifference === null, 'question', 'the smallest difference that matters');
  const picked = plan.traits.some(
    (t) => t.id === plan.primaryTraitId && ['picks', 'oven'].includes(kindOf(t).takenBy),
  );
  need(plan.rounds.length === 0 && !picked, 'question', 'at least one round');
  need(
    plan.primaryTraitId !== null &&
      !picked &&
      plan.rounds.length > 0 &&
      !plan.rounds.some((r) => r.traitIds.includes(plan.primaryTraitId!)),
    'question',
    'a round in which the deciding trait is measured',
  );
  need(plan.treatments.length < 2, 'contenders', 'two treatments or more');
  need(
    plan.treatments.length > 0 && countedFrom(plan) === null,
    'contenders',
    'a control (untreated, base or reference), or the word that equals are compared',
  );
  need(plan.areas.length === 0, 'layout', 'an area to stand in');
  need(plan.units.length === 0, 'layout', 'units on the plan');
  for (const trait of plan.traits) {
    const lacking = plan.units.length === 0 ? [] : withoutDivisor(plan, trait);
    if (lacking.length === 0 || trait.per === undefined) continue;
    if (trait.per === 'area') {
      need(true, 'layout', `how large a ${plan.unitNoun} is, for ${trait.name.toLowerCase()} per m²`);
    } else {
      need(true, 'contenders', `plants in a ${plan.unitNoun}, for ${trait.name.toLowerCase()} per plant`);
    }
  }
  const bare = plan.treatments.filter((t) => !plan.units.some((u) => u.treatmentId === t.id));
  need(plan.units.length > 0 && bare.length > 0, 'layout', `units for ${bare.map((t) => t.name).join(', ')}`);
  return missing;
}
