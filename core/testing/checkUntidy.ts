import { noEffect } from '../analysis/contrast';
import { findingOf } from '../account/findingInput';
import type { Finding } from '../account/finding';
import { shownOf } from '../account/shown';
import { audit } from '../fairness/audit';
import { auditInput } from '../fairness/auditInput';
import { deriveState } from '../log/state';
import { letterOf } from '../plan/letters';
import { planIndex } from '../plan/planIndex';
import type { Block } from '../report/block';
import { cellText } from '../report/cell';
import { filmingBlocks } from '../report/filming';
import { toHtml } from '../report/html';
import { toMarkdown } from '../report/markdown';
import { toPlainText } from '../report/plainText';
import { trialReview } from '../report/trialReview';
import { awards } from '../say/awards';
import { sayRetest, sayWhoTakes } from '../say/onePage';
import { headline, methodText, notes, warningsOf } from '../say/words';
import { type Statement, contradictions, statement } from '../say/statement';
import { nextTrial } from '../looks/secondLooks';
import { findingInput } from '../account/findingInput';
import { makeVerdict } from '../verdict/verdict';
import { falseStatements, wordFaults } from './oracles';
import { pageColours } from '../picture/paper';
import type { Untidy } from './untidy';

export interface UntidyFaults {
  thrown: string[];
  false: string[];
  contradictory: string[];
  /** wording, letters, documents that weren't made */
  other: string[];
}

const textsOf = (blocks: readonly Block[]): string[] =>
  blocks.flatMap((b) => {
    switch (b.type) {
      case 'note':
        return [b.title, b.text];
      case 'list':
        return b.items;
      case 'table':
        return [...b.columns.map((c) => c.head), ...b.rows.flatMap((r) => r.cells.map(cellText))];
      case 'figure':
        return [b.alt, b.caption];
      default:
        return [b.text];
    }
  });

/** Looks at everything that is said of an untidy trial: nothing throws, all is true, nothing contradicts. */
export function checkUntidy(untidy: Untidy): UntidyFaults {
  const faults: UntidyFaults = { thrown: [], false: [], contradictory: [], other: [] };
  try {
    look(untidy, faults);
  } catch (e) {
    faults.thrown.push(
      e instanceof Error ? `${e.message} ${(e.stack ?? '').split('\n')[1] ?? ''}` : String(e),
    );
  }
  return faults;
}

function look(untidy: Untidy, faults: UntidyFaults): void {
  const { trial, today } = untidy;
  const folded = deriveState(trial.plan, trial.log);
  const { state, shown: shownState, blind } = shownOf(folded, trial.key);
  const { plan } = state;
  const nameOf = (id: string) => planIndex(plan).treatment(id)?.name ?? id;
  const auditFindings = audit(auditInput(trial, state));
  const made = plan.traits.map((t) => findingOf(state, t, { today }));
  const texts: string[] = auditFindings.flatMap((f) => [f.found, f.cure]);
  made.forEach((m, i) => {
    if (!m.ok) return;
    const finding = m.value;
    const statements = [headline(finding, nameOf), ...asStatements(finding, nameOf, plan.unitNoun)];
    texts.push(methodText(finding, plan.unitNoun), ...warningsOf(finding, plan.unitNoun));
    if (plan.traits[i]!.id === plan.primaryTraitId) {
      const verdict = makeVerdict(plan, finding, nameOf, { state, audit: auditFindings });
      statements.push(verdict.headline, verdict.bestValue, ...verdict.cannotTell);
      if (verdict.costBasis) statements.push(verdict.costBasis);
      statements.push(
        ...awards(plan, finding, verdict, nameOf).map((a) =>
          statement('award', `${a.title}. ${a.text}`, a.facts),
        ),
      );
      texts.push(
        ...sayRetest(plan, verdict, nextTrial(findingInput(state, finding.trait), finding), auditFindings),
      );
      const card = { plan, findings: [finding], lines: verdict.lines, nameOf };
      texts.push(...sayWhoTakes(card, trial.review.headings ?? []));
      if (!blind) texts.push(...textsOf(filmingBlocks(state, finding, verdict, nameOf)));
    }
    faults.false.push(...falseStatements(statements, untidy, finding));
    faults.contradictory.push(...contradictions(statements), ...twoSided(finding));
    texts.push(...statements.map((s) => s.text));
  });
  const review = trialReview(trial, today);
  if (blind !== (review === null))
    faults.other.push('a review while codes are closed, or none once they are open');
  if (review) {
    texts.push(...textsOf(review.blocks));
    for (const text of [
      toMarkdown(review.blocks, (id) => id),
      toPlainText(review.blocks),
      toHtml('t', review.blocks, () => '', pageColours),
    ])
      if (text.length < 200) faults.other.push('a document with nothing in it');
  }
  // The letter under codes is the letter once they are open.
  if (plan.blinding !== 'open' && !blind) {
    const closed = shownOf(
      deriveState(
        trial.plan,
        trial.log.filter((e) => e.kind !== 'reveal'),
      ),
      trial.key,
    );
    for (const t of trial.plan.treatments) {
      const [before, after] = [closed.shown.plan, shownState.plan].map((p) =>
        planIndex(p).treatmentOrder(t.id),
      );
      if (before !== after)
        faults.other.push(`${t.name} was ${letterOf(before!)} and is ${letterOf(after!)}`);
    }
  }
  faults.other.push(...new Set(wordFaults(texts)));
}

/** Contrasts whose per cent says a difference where the limits of the difference itself hold none, or the other way. */
const twoSided = (finding: Finding): string[] =>
  finding.analysis.pairs.flatMap(({ a, b, scale, low, high, percent }) => {
    if (low === null || high === null || !percent || percent.low === null || percent.high === null) return [];
    const isDifferent = low > noEffect[scale] || high < noEffect[scale];
    const inPercent = percent.low > 0 || percent.high < 0;
    return isDifferent === inPercent ? [] : [`${a} against ${b}: ${low} to ${high}, but in per cent not so`];
  });

const asStatements = (finding: Finding, nameOf: (id: string) => string, unitNoun: string): Statement[] =>
  notes(finding, nameOf, unitNoun).map((n) => statement('note', `${n.title} ${n.text}`, n.facts));
