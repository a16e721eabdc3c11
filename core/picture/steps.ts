import { scaleLinear } from 'd3-scale';
import { plural } from '../quantity/format';
import { axisBelow, axisLeft, namedEnds } from './axes';
import { type Drawing, type Lane, type Mark, type Room, inkOf } from './marks';

interface StepCurve {
  lane: Lane;
  /** share of units it hasn't happened to, from each day on */
  steps: readonly { day: number; share: number }[];
  /** units it hadn't happened to when last looked at */
  open: readonly { code: string; day: number }[];
}

const [HEIGHT, LEFT, TOP, BOTTOM] = [360, 56, 34, 310];

/** Days until: what share of the units had it by each day, a step at each day it was seen. */
export function stepCurves(
  curves: readonly StepCurve[],
  until: number,
  unitNoun: string,
  { width, narrow }: Room,
): Drawing {
  const right = width - (narrow ? 30 : 150);
  const x = scaleLinear([0, Math.max(1, until)], [LEFT, right]).nice(6);
  const y = scaleLinear([0, 100], [BOTTOM, TOP]);
  const had = (share: number) => y(100 * (1 - share));
  const ends = namedEnds(
    curves.map(({ lane, steps }) => ({
      ...{ key: lane.id, name: lane.name, index: lane.index, y: had(steps.at(-1)?.share ?? 1) },
    })),
    { right, width, height: HEIGHT, narrow },
  );
  const drawn = curves.flatMap(({ lane, steps, open }): Mark[] => {
    const path = steps.reduce((d, s) => `${d}H${x(s.day)}V${had(s.share)}`, `M${x(0)} ${y(0)}`);
    const shareAt = (day: number) => steps.filter((s) => s.day <= day).at(-1)?.share ?? 1;
    const stroke = inkOf(lane.index);
    return [
      { mark: 'path', d: `${path}H${x(until)}`, stroke, width: 2.5 },
      ...open.map((o): Mark => {
        const [at, level] = [x(o.day), had(shareAt(o.day))];
        return { mark: 'line', from: [at, level - 6], to: [at, level + 6], stroke, width: 1.5, said: o.code };
      }),
    ];
  });
  return {
    ...{ width, height: ends.height },
    marks: [
      ...axisLeft({
        ...{ ticks: [0, 25, 50, 75, 100], at: y, from: TOP, to: right, across: LEFT },
        title: `% of the ${plural(unitNoun)} that had it`,
      }),
      ...axisBelow({ ticks: x.ticks(6), at: x, from: LEFT, to: right, across: BOTTOM, title: 'day' }),
      ...drawn,
      ...ends.marks,
    ],
  };
}
