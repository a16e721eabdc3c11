import { Link } from 'react-router';
import type { Plan, Trait } from '~core/model/plan';
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
  const first = (t: Trait) => Number(t.id === plan.primaryTraitId);
  const findingOf = new Map(findings.map((f) => [f.trait.id, f]));
  const sentence = (t: Trait) => {
    const f = findingOf.get(t.id);
    return f ? (blind ? blindHeadline(f) : headline(f, nameOf).text) : 'Nothing can be said yet.';
  };
  return (
    <nav aria-label="Findings by trait">
      <ul className="trait-list">
        {[...plan.traits]
          .sort((a, b) => first(b) - first(a))
          .map((t) => (
            <li key={t.id}>
              <Link
                to={`?trait=${encodeURIComponent(t.id)}`}
                aria-current={t.id === current ? 'true' : undefined}
              >
                {t.name}
              </Link>
              {t.id === plan.primaryTraitId && <span className="small quiet"> decides</span>}
              <div className="small">{sentence(t)}</div>
            </li>
          ))}
      </ul>
    </nav>
  );
}
