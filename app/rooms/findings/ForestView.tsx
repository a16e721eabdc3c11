import { distance } from '~core/analysis/contrast';
import { moreIsBetter } from '~core/analysis/goodness';
import type { Plan } from '~core/model/plan';
import { planIndex } from '~core/plan/planIndex';
import type { Finding } from '~core/account/finding';
import { heldOf, soleControl } from '~core/account/outcomes';
import { sayEstimate } from '~core/say/words';
import { forest } from '~core/picture/forest';
import { Picture } from '../../ui/pictures/Picture';
import { usePictureRoom } from '../../ui/pictures/usePictureRoom';
import { nameIn } from './findingData';

/** Differences from the control over all traits, each trait on a scale of its own. */
export function ForestView({ plan, findings }: { plan: Plan; findings: readonly Finding[] }) {
  const room = usePictureRoom('whole');
  const nameOf = nameIn(plan);
  const testedFindings = findings.filter((f) => heldOf(f).length > 0);
  if (testedFindings.length === 0)
    return <p className="quiet">There is nothing to hold against a control yet.</p>;
  const sole = soleControl(testedFindings[0]!);
  const control = sole === null ? 'each its own control' : nameOf(sole);
  return (
    <Picture
      label={`All traits against ${control}`}
      file={`${plan.code} all traits`}
      caption={`Against ${control}, right of the line is better. Each trait has a scale of its own; a line is the interval that holds for all contenders together.`}
      drawing={forest(
        testedFindings.map((f) => ({
          name: f.trait.name,
          decides: f.trait.id === plan.primaryTraitId,
          rows: heldOf(f).map(({ contrast: c }) => {
            const sign = moreIsBetter(f.trait) ? 1 : -1;
            // None at all of one of two rates lies beyond any scale: it ends at twenty times.
            const end = c.scale === 'ratio' ? Math.log(20) : Infinity;
            const at = (x: number) => sign * Math.min(end, Math.max(-end, distance(c.scale, x)));
            const ends =
              c.low === null || c.high === null ? null : [at(c.low), at(c.high)].sort((a, b) => a - b);
            return {
              index: planIndex(plan).treatmentOrder(c.a),
              name: nameOf(c.a),
              estimate: at(c.estimate),
              low: ends?.[0] ?? null,
              high: ends?.[1] ?? null,
              said: sayEstimate(c, f),
            };
          }),
        })),
        room,
      )}
    />
  );
}
