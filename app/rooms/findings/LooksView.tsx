import { experimentalNoun } from '~core/plan/sharing';
import type { Plan } from '~core/model/plan';
import type { Finding } from '~core/account/finding';
import { saySecondLooks } from '~core/say/saySecondLooks';
import type { SecondLooks } from '~core/looks/secondLooks';
import { residualPlan } from '~core/picture/residuals';
import { Picture } from '../../ui/pictures/Picture';
import { usePictureRoom } from '../../ui/pictures/usePictureRoom';
import { nameIn } from './findingData';

interface Props {
  plan: Plan;
  finding: Finding;
  looks: SecondLooks;
  /** what the log says of a unit that lies far off */
  said: (unitId: string) => string[];
}

/** The finding looked at otherwise, and the plan by what is left over. */
export function LooksView({ plan, finding, looks, said }: Props) {
  const room = usePictureRoom();
  const left = new Map(looks.residuals.map((r) => [r.unit, r.studentized]));
  return (
    <div className="findings-grid">
      {looks.residuals.length > 0 ? (
        <Picture
          drawing={residualPlan(plan, left, room)}
          caption="How far each stands from what its contender and block predict, in standard errors: + more, − less. A pattern means that the position played a part."
          label={`What is left over of ${finding.trait.name.toLowerCase()} in each place of the plan`}
          file={`${plan.code} ${finding.trait.name} left over`}
        />
      ) : (
        <p className="quiet">What is left over in each place is drawn for findings by means.</p>
      )}
      <div className="stack">
        <h2>Would it be another finding?</h2>
        <LooksList {...{ plan, finding, looks, said }} />
        <p className="small quiet">
          The finding itself was chosen beforehand; nothing here replaces it.
          {plan.traits.length > 1 &&
            ` ${plan.traits.find((t) => t.id === plan.primaryTraitId)?.name ?? 'The deciding trait'} decides; the ${plan.traits.length === 2 ? 'other describes' : 'others describe'}. Looked at one by one, one of twenty traits differs by chance alone.`}
        </p>
      </div>
    </div>
  );
}

/** What other looks say, one a line. */
export function LooksList({ plan, finding, looks, said }: Props) {
  const notes = saySecondLooks(looks, finding, nameIn(plan), experimentalNoun(plan));
  return (
    <>
      {notes.length === 0 && (
        <p className="small quiet">
          Nothing to add. Looks at spread, far values and place are made for findings by means.
        </p>
      )}
      <ul className="report-list">
        {notes.map((n) => (
          <li key={n.id} className={n.tone === 'open' ? 'warning' : undefined}>
            {n.text}
            {n.id.startsWith('outlier-') &&
              said(n.id.slice('outlier-'.length)).map((line) => (
                <div key={line} className="small quiet">
                  The log: {line}
                </div>
              ))}
          </li>
        ))}
      </ul>
    </>
  );
}
