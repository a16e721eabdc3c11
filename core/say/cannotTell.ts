import { describeCostError } from '../cost/treatmentCost';
import type { Finding } from '../account/finding';
import { experimentalNoun } from '../plan/sharing';
import { contrastOf, isSoFar } from '../account/outcomes';
import type { Plan } from '../model/plan';
import type { VerdictLine } from '../verdict/verdict';
import { factOf, lostControls, untested } from './headline';
import { sayPair, sayWhyNot } from './sayContrast';
import type { NameOf } from '../model/nameOf';
import { type Statement, statement } from './statement';

/** The things a trial leaves open, one a line. */
export function cannotTell(
  plan: Plan,
  finding: Finding,
  lines: readonly VerdictLine[],
  nameOf: NameOf,
): Statement[] {
  const out: Statement[] = [];
  const say = (text: string) => out.push(statement('cannotTell', text));
  const { trait, analysis } = finding;
  const what = trait.direction === 'band' ? ' of distance outside the band' : '';
  for (const p of finding.outcomes) {
    if (p.verdict === 'better' || p.verdict === 'alike') continue;
    // Against the control the sign is the contender's, as on every other screen.
    const turned = finding.against.some((o) => o.id === p.b && o.control === p.a);
    const [a, b] = turned ? [p.b, p.a] : [p.a, p.b];
    if (p.verdict === 'untested') {
      if (analysis.spread === 'shown')
        out.push(
          statement(
            'cannotTell',
            `Which is better, ${nameOf(a)} or ${nameOf(b)}: ${sayWhyNot(finding, a, b, experimentalNoun(plan))}.`,
            factOf(finding, a, b),
          ),
        );
      continue;
    }
    const leaning = p.verdict === 'leaning' && p.ahead ? `, leaning to ${nameOf(p.ahead)}` : '';
    out.push(
      statement(
        'cannotTell',
        `Which is better, ${sayPair(contrastOf(finding, a, b)!, finding, nameOf)}${what}${leaning}.`,
        factOf(finding, a, b),
      ),
    );
  }
  const missing = lostControls(finding, nameOf);
  if (missing) out.push({ ...missing, kind: 'cannotTell' });
  else if (finding.peers && analysis.summaries.length > 1)
    say('Whether any of them is better than nothing: equals were compared, without a control.');
  for (const { id, why } of finding.absent)
    out.push(
      statement('cannotTell', `What ${nameOf(id)} does: it has no figure (${why}).`, [
        { is: 'noFigure', a: id },
      ]),
    );
  const why = untested[analysis.spread];
  if (why !== null) say(`Which is better: ${why.charAt(0).toLowerCase()}${why.slice(1)}`);
  if (isSoFar(finding))
    say(
      finding.basis.open.length > 0 || finding.basis.toCome > 0
        ? 'How it ends: not every planned round is in.'
        : 'How it ends: not every unit is measured.',
    );
  if (plan.smallestDifference === null && analysis.pairs[0]?.scale !== 'superiority')
    say('Whether a difference is large enough to matter: none was set beforehand.');
  for (const l of lines) {
    if (!l.cost.ok) say(`What ${nameOf(l.treatment.id)} costs: ${describeCostError(l.cost.error)}`);
  }
  say(
    `Another crop, season or place: this was ${plan.crop || 'one crop'}, once. A repeat would tell whether it holds.`,
  );
  return out;
}
