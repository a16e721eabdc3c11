import type { Plan, Trait } from '~core/model/plan';
import type { OverTime } from '~core/looks/overTime';
import { peeking, sayPeeking } from '~core/looks/peeking';
import { sayLeads } from '~core/looks/overTime';
import { growthLines } from '~core/picture/growth';
import { plural } from '~core/quantity/format';
import { Picture } from '../../ui/pictures/Picture';
import { usePictureRoom } from '../../ui/pictures/usePictureRoom';
import { nameIn } from './findingData';
import { lanesIn } from './FindingPicture';

interface Props {
  plan: Plan;
  trait: Trait;
  time: OverTime | null;
  /** whom the finding names as ahead */
  told: readonly string[];
  /** codes are closed */
  blind: boolean;
}

/** A trait over its rounds: every unit's line, and who led when. */
export function OverTimeView({ plan, trait, time, told, blind }: Props) {
  const room = usePictureRoom();
  if (!time) {
    return (
      <p className="quiet">
        {trait.name} has one round so far, or is of a kind that makes no curve. Lines over time need two
        rounds.
      </p>
    );
  }
  const nameOf = nameIn(plan);
  const planned = plan.rounds.filter((r) => r.traitIds.includes(trait.id)).map((r) => r.day);
  const over = time.leads.at(-1)?.day === Math.max(...planned);
  const sentences = sayLeads(time, nameOf, { over, told });
  const present = new Set(time.curves.map((c) => c.treatment));
  const ids = plan.treatments.map((t) => t.id as string).filter((id) => present.has(id));
  const peeked = trait.direction === 'band' || blind ? null : peeking(plan, trait, time);
  const fitted = time.curves.filter((c) => c.logistic !== null);
  return (
    <div className="findings-grid">
      <Picture
        drawing={growthLines(
          {
            lanes: lanesIn(plan, ids),
            means: time.means,
            curves: time.curves.map((c) => ({ ...c, lane: c.treatment })),
            what: trait.unit ? `${trait.name.toLowerCase()}, ${trait.unit}` : trait.name.toLowerCase(),
          },
          room,
        )}
        label={sentences[0] ?? `${trait.name} of every ${plan.unitNoun} over the days`}
        file={`${plan.code} ${trait.name} over time`}
        caption={`Each thin line is a ${plan.unitNoun}; the thick one is the mean of a contender on days on which all of its ${plural(plan.unitNoun)} that were alive were measured.`}
      />
      <div className="stack">
        <h2>Who led when</h2>
        {sentences.length === 0 ? (
          <p className="small quiet">
            Leaders are named on days on which every living {plan.unitNoun} was measured; two such days are
            needed.
          </p>
        ) : (
          <ul className="small report-list">
            {sentences.map((s) => (
              <li key={s}>{s}</li>
            ))}
          </ul>
        )}
        {peeked && <p className="small">{sayPeeking(peeked)}</p>}
        {fitted.length > 0 && (
          <p className="small quiet">
            A logistic curve fits {fitted.length} of {time.curves.length} {plan.unitNoun} lines; half of the
            full size on day {median(fitted.map((c) => c.logistic!.midpoint)).toFixed(0)} in the middle of
            them.
          </p>
        )}
      </div>
    </div>
  );
}

const median = (xs: readonly number[]): number =>
  [...xs].sort((a, b) => a - b)[Math.floor((xs.length - 1) / 2)]!;
