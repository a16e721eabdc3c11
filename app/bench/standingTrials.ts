import { audit } from '~core/fairness/audit';
import { auditInput } from '~core/fairness/auditInput';
import { kindOf } from '~core/model/plan';
import { findingInput } from '~core/account/findingInput';
import { isSoFar } from '~core/account/outcomes';
import type { StandingTrial } from '~core/standings/overTrials';
import { perTrial } from '../store/perTrial';
import { findings } from '../workers/findings';

export type InFamily = StandingTrial & { family: string };

/** What one trial says of its products: amounts of which more is better, since their ratios mean the same in every trial. */
export const standingTrials = perTrial(async ({ row, state, blind }, today): Promise<InFamily[]> => {
  const traits = row.plan.traits.filter(
    (x) => kindOf(x).observes === 'continuous' && x.direction === 'higher',
  );
  if (blind || traits.length === 0) return [];
  const made = await findings(traits.map((trait) => findingInput(state, trait, { today })));
  const faults = audit(auditInput(row, state)).filter((f) => f.severity === 'breaks' && f.accepted === null);
  return traits.flatMap((trait, i): InFamily[] => {
    const finding = made[i]!;
    if (!finding.ok) return [];
    return [
      {
        ...{ id: row.plan.id, title: row.plan.question, crop: row.plan.crop, plan: row.plan },
        finding: finding.value,
        faults: [
          ...faults.map((f) => f.title),
          ...(isSoFar(finding.value) ? ['values are still to come'] : []),
        ],
        family: trait.unit || trait.name,
      },
    ];
  });
});
