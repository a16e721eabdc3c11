import { scaleLinear } from 'd3-scale';
import { axisBelow, axisLeft, namedEnds } from './axes';
import { type Drawing, type Lane, type Mark, type Room, inkOf, throughPoints } from './marks';

interface Growth {
  lanes: readonly Lane[];
  curves: readonly { code: string; lane: string; points: readonly { day: number; value: number }[] }[];
  /** mean of each lane, day by day */
  means: readonly { id: string; points: readonly { day: number; mean: number }[] }[];
  what: string;
}

const [HEIGHT, LEFT, TOP, BOTTOM] = [400, 56, 34, 345];

/** Again and again: every unit's line over the days, thin; the mean of each contender thick, with its tile at each day. */
export function growthLines({ lanes, curves, means, what }: Growth, { width, narrow }: Room): Drawing {
  const right = width - (narrow ? 30 : 150);
  const days = [...new Set(curves.flatMap((c) => c.points.map((p) => p.day)))].sort((a, b) => a - b);
  const values = curves.flatMap((c) => c.points.map((p) => p.value));
  const x = scaleLinear([Math.min(...days), Math.max(...days)], [LEFT + 6, right]);
  const y = scaleLinear([Math.min(0, ...values), Math.max(...values)], [BOTTOM, TOP]).nice(6);
  const known = lanes.flatMap((lane) => {
    const points = means.find((l) => l.id === lane.id)?.points ?? [];
    return points.length > 0 ? [{ lane, points }] : [];
  });
  const ends = namedEnds(
    known.map(({ lane, points }) => ({ ...lane, key: lane.id, y: y(points.at(-1)!.mean) })),
    { right, width, height: HEIGHT, narrow },
  );
  const thin = curves.flatMap(({ code, lane: id, points }): Mark[] => {
    const lane = lanes.find((l) => l.id === id);
    if (!lane || points.length === 0) return [];
    const inOrder = [...points].sort((a, b) => a.day - b.day);
    const d = throughPoints(inOrder.map((p) => [x(p.day), y(p.value)] as const));
    return [{ mark: 'path', d, stroke: inkOf(lane.index), width: 1, opacity: 0.45, said: code }];
  });
  const thick = known.flatMap(({ lane, points }): Mark[] => {
    const at = points.map((p) => [x(p.day), y(p.mean)] as const);
    return [
      { mark: 'path', d: throughPoints(at), stroke: inkOf(lane.index), width: 3 },
      ...at.map((point): Mark => ({ mark: 'tile', at: point, index: lane.index, size: 12 })),
    ];
  });
  return {
    ...{ width, height: ends.height },
    marks: [
      ...axisLeft({ ticks: y.ticks(6), at: y, from: TOP, to: right, across: LEFT, title: what }),
      ...axisBelow({
        ...{ ticks: x.ticks(7).filter(Number.isInteger), at: x, from: LEFT, to: right },
        ...{ across: BOTTOM, title: 'day' },
      }),
      ...thin,
      ...thick,
      ...ends.marks,
    ],
  };
}
