import type { Finding } from '../account/finding';
import { soleControl } from '../account/outcomes';
import { kaplanMeier } from '../stats/survival';
import type { Trait } from '../model/plan';
import { axisBelow, roomyScale } from './axes';
import { proportionDots } from './dots';
import { figureMarks } from './figureMarks';
import { type Drawing, type Lane, type Mark, type Room, inkOf, usualRoom } from './marks';
import { stepCurves } from './steps';

export interface FindingShown {
  finding: Finding;
  /** contenders in the plan's order */
  lanes: readonly Lane[];
  /** what a value stands for */
  per: string;
  /** what had its treatment on its own */
  unitNoun: string;
  /** nothing marks the control: names are hidden, or equals are compared */
  unmarked: boolean;
}

const [LEFT, RIGHT, TILE] = [20, 24, 14];
const STEP = TILE + 1;
/** of a lane: its name's row, which nothing crosses, and what stands below the lowest tile */
const [NAME, BELOW] = [28, 42];

/** Values of nearly the same height stacked, so that every one is seen. @returns each and its level, from 0 */
export function stacked<T extends { value: number }>(
  units: readonly T[],
  near: number,
): { unit: T; level: number }[] {
  const placed: { unit: T; level: number }[] = [];
  for (const unit of [...units].sort((a, b) => a.value - b.value)) {
    const levelsTaken = placed.filter((p) => Math.abs(p.unit.value - unit.value) < near).map((p) => p.level);
    let level = 0;
    while (levelsTaken.includes(level)) level += 1;
    placed.push({ unit, level });
  }
  return placed;
}

/** What stands at the axis of a finding's picture. @example axisTitle(trait, 'tray') // 'cut weight, g per tray' */
const axisTitle = (trait: Trait, per: string): string =>
  `${trait.name.toLowerCase()}${trait.unit ? `, ${trait.unit}` : ''}${trait.per ? '' : ` per ${per}`}`;

/** What a finding's picture shades: the wanted band, or differences from the control too small to matter. */
export function shadeOf({ finding, unmarked }: Pick<FindingShown, 'finding' | 'unmarked'>) {
  const { trait, smallestDifference } = finding;
  if (trait.direction === 'band')
    return { what: 'band', low: trait.bandLow!, high: trait.bandHigh! } as const;
  const control = controlOf(finding, unmarked);
  return control === undefined || smallestDifference === null
    ? null
    : ({
        what: 'small',
        low: control.estimate - smallestDifference,
        high: control.estimate + smallestDifference,
      } as const);
}

const controlOf = (finding: Finding, unmarked: boolean) => {
  const sole = unmarked ? null : soleControl(finding);
  const soleSummary = finding.analysis.summaries.find((s) => s.name === sole);
  return soleSummary?.shown === undefined ? soleSummary : undefined;
};

/** Which kind of picture a finding has: dots for k of n, curves for days until, tiles for all else. */
export function kindOfPicture({ analysis, units }: Finding): 'dots' | 'steps' | 'tiles' {
  if (analysis.method === 'proportions' && units.every((u) => u.counted)) return 'dots';
  return analysis.method === 'times' && units.every((u) => u.seen) ? 'steps' : 'tiles';
}

/**
 * A finding as a picture, the same on the screen, in the review and in a file of its own.
 * @param room how wide; where that is narrow, names stand below the lines
 */
export function findingPicture(shown: FindingShown, room: Room = usualRoom): Drawing {
  const { finding, unitNoun } = shown;
  const { analysis, units } = finding;
  const lanes = shown.lanes.filter((l) => analysis.summaries.some((s) => s.name === l.id));
  switch (kindOfPicture(finding)) {
    case 'dots':
      return proportionDots(
        lanes,
        units.map((u) => ({ code: u.code, lane: u.treatmentId, ...u.counted! })),
        analysis.summaries.map((s) => ({
          ...{ lane: s.name, share: s.estimate, low: s.low, high: s.high, counted: s.counted ?? '' },
        })),
        room,
      );
    case 'steps':
      return stepCurves(
        lanes.map((lane) => {
          const own = units.filter((u) => u.treatmentId === lane.id);
          const steps = kaplanMeier(own.map((u) => ({ time: u.seen!.day, happened: u.seen!.happened })));
          return {
            lane,
            steps: steps.map((s) => ({ day: s.time, share: s.survival })),
            open: own.flatMap((u) => (u.seen!.happened ? [] : [{ code: u.code, day: u.seen!.day }])),
          };
        }),
        Math.max(...units.map((u) => u.seen!.day)),
        unitNoun,
        room,
      );
    case 'tiles':
      return unitTiles({ ...shown, lanes }, room);
  }
}

/** Every unit as its contender's tile; figure and interval below, the control's line and the shade behind, names above both. */
function unitTiles({ finding, lanes, per, unmarked }: FindingShown, { width }: Room): Drawing {
  const { analysis, trait, units } = finding;
  const right = width - RIGHT;
  const shade = shadeOf({ finding, unmarked });
  const isBand = shade?.what === 'band';
  const x = roomyScale(
    [
      ...units.map((u) => u.value),
      ...(isBand
        ? [shade.low, shade.high]
        : analysis.summaries.flatMap((s) => (s.low === null ? [] : [s.low, s.high!]))),
    ],
    [LEFT, right],
    0.07,
  );
  const near = x.invert(LEFT + STEP) - x.invert(LEFT);
  const stacks = lanes.map((l) => stacked(units.filter((u) => u.treatmentId === l.id), near)); // prettier-ignore
  const highest = Math.max(0, ...stacks.flat().map((s) => s.level));
  const high = NAME + BELOW + highest * STEP;
  const bottom = 8 + lanes.length * high;
  const within = (v: number) => Math.min(right, Math.max(LEFT, x(v)));
  const control = isBand ? undefined : controlOf(finding, unmarked);
  const valueText = (u: Finding['units'][number]) =>
    `${u.code}: ${Number(u.value.toFixed(trait.decimals))} ${trait.unit}`.trim();
  const marks = lanes.flatMap((lane, i): Mark[] => {
    const top = 8 + i * high;
    const own = inkOf(lane.index);
    const [under, end] = [top + NAME, top + high];
    const figure = analysis.summaries.find((s) => s.name === lane.id)!;
    const line = end - 18;
    return [
      ...(shade === null
        ? []
        : [
            {
              ...({
                mark: 'rect',
                at: [within(shade.low), under],
                fill: 'sunk',
                height: high - NAME,
              } as const),
              width: within(shade.high) - within(shade.low),
            },
          ]),
      ...(control === undefined
        ? []
        : [
            {
              mark: 'line' as const,
              from: [x(control.estimate), under] as const,
              to: [x(control.estimate), end] as const,
              stroke: inkOf(lanes.find((l) => l.id === control.name)?.index ?? 0),
              dashed: true,
            },
          ]),
      { mark: 'text', at: [LEFT, top + 18], text: lane.name, face: 'serif', size: 16, bold: true, ink: own },
      ...stacks[i]!.map(({ unit, level }): Mark => ({
        ...{ mark: 'tile', at: [x(unit.value), end - BELOW + 3 - level * STEP], index: lane.index },
        said: valueText(unit),
      })),
      ...(isBand || figure.shown !== undefined ? [] : figureMarks(figure, x, line, lane.index)),
    ];
  });
  return {
    ...{ width, height: bottom + 52 },
    marks: [
      ...marks,
      ...axisBelow({
        ...{ ticks: x.ticks(6), at: x, from: LEFT, to: right, across: bottom },
        title: axisTitle(trait, per),
      }),
    ],
  };
}
