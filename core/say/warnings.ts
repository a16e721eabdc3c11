import { countWord, listNames, plural, sentenceCase } from '../quantity/format';
import { kindOf } from '../model/traitKinds';
import type { OpenRound } from '../analysis/basis';
import type { Finding } from '../account/finding';

/** A round that was begun and isn't counted, with what is missing. @example 'Pick 2 (day 40) has 12 of 20 trays: …' */
export function sayOpenRound({ name, day, done, wanted, missing }: OpenRound, unitNoun: string): string {
  const some = missing.length > 6 ? `${missing.slice(0, 6).join(', ')} …` : listNames(missing);
  return `${name} (day ${day}) has ${done} of ${wanted} ${plural(unitNoun)}; ${some} ${missing.length === 1 ? 'is' : 'are'} missing.`;
}

/** What a reader should know before believing a finding, one a line. */
export function warningsOf(finding: Finding, unitNoun: string): string[] {
  const { analysis, basis, leftOut, trait, roundId } = finding;
  const out: string[] = [];
  const many = (n: number) => (n === 1 ? unitNoun : plural(unitNoun));
  for (const open of basis.open) {
    out.push(
      `${basis.over ? 'Not counted' : 'Not counted yet'}: ${sayOpenRound(open, unitNoun)}${kindOf(trait).takenBy === 'picks' ? ' Where nothing was ripe, say so.' : trait.summary === 'sum' ? ' Where nothing was ripe, enter 0.' : ''}`,
    );
  }
  if (roundId === null && basis.toCome > 0) {
    out.push(
      kindOf(trait).takenBy === 'picks'
        ? 'Picking goes on: the last planned day is still to come.'
        : `${sentenceCase(countWord(basis.toCome))} planned ${basis.toCome === 1 ? 'round is' : 'rounds are'} still to come.`,
    );
  }
  if (roundId === null && basis.missed > 0)
    out.push(
      kindOf(trait).takenBy === 'picks'
        ? 'On the last planned day nothing was picked or looked at.'
        : `${sentenceCase(countWord(basis.missed))} planned ${basis.missed === 1 ? 'round was' : 'rounds were'} never made.`,
    );
  const figures = asFigures[kindOf(trait).observes];
  if (figures && (analysis.method === 'linear' || analysis.method === 'welch')) out.push(figures);
  for (const a of analysis.assumptions)
    if (a.holds === false) out.push(`${sentenceCase(a.fails ?? `not so: ${a.what}`)}: ${a.seen}.`);
  const unmeasured = leftOut.filter((u) => u.why === 'notMeasured').length;
  if (unmeasured > 0) out.push(`${unmeasured} ${many(unmeasured)} not measured${basis.over ? '' : ' yet'}.`);
  const died = leftOut.filter((u) => u.why === 'died').length;
  if (died > 0) {
    out.push(`${died} ${many(died)} died before this and ${died === 1 ? 'isn’t' : 'aren’t'} in the figures.`);
  }
  const spares = finding.units.filter((u) => u.spareSince !== undefined);
  if (spares.length > 0) {
    out.push(
      `${listNames(spares.map((u) => `${u.code} since day ${u.spareSince}`))}: a spare in place of what died, treated for fewer days.`,
    );
  }
  return out;
}

/** What is lost where a kind of value is compared by means instead of by its own test. */
const asFigures: Partial<Record<ReturnType<typeof kindOf>['observes'], string>> = {
  level:
    'Scores are compared as figures, by the mean of each unit: as if each step were as long as the next.',
  kOfN: 'k of n is compared as a per cent of each unit, by the mean.',
};
