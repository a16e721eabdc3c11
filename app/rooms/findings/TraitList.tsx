import { Link } from 'react-router';
import type { Plan } from '~core/model/plan';
import type { Finding } from '~core/account/finding';
import { blindHeadline, headline } from '~core/say/words';
import { nameIn } from './findingData';

interface Props {
  plan: Plan;
  findings: readonly Finding[];
  /** the trait that is shown */
  current: string;
  blind: boolean;
}

/** Every trait with its finding in a sentence, the deciding one first. */
export function TraitList({ plan, findings, current, blind }: Props) {
  const nameOf = nameIn(plan);
  const first = (f: Finding) => Number(f.trait.id === plan.primaryTraitId);
  return (
    <nav aria-label="Findings by trait">
      <ul className="trait-list">
        {[...findings]
          .sort((a, b) => first(b) - first(a))
          .map((f) => (
            <li key={f.trait.id}>
              <Link
                to={`?trait=${encodeURIComponent(f.trait.id)}`}
                aria-current={f.trait.id === current ? 'true' : undefined}
              >
                {f.trait.name}
              </Link>
              {f.trait.id === plan.primaryTraitId && <span className="small quiet"> decides</span>}
              <div className="small">{blind ? blindHeadline(f) : headline(f, nameOf).text}</div>
            </li>
          ))}
      </ul>
    </nav>
  );
}
