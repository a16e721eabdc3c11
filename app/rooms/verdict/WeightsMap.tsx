import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { scaleLinear } from 'd3-scale';
import { useMemo, useState } from 'react';
import type { Plan } from '~core/model/plan';
import { listNames } from '~core/quantity/format';
import type { Card } from '~core/scorecard/card';
import { type MapCell, weightsMap } from '~core/scorecard/weights';
import { axisBelow, axisLeft } from '~core/picture/axes';
import { type Mark, inkOf } from '~core/picture/marks';
import { Picture } from '../../ui/pictures/Picture';
import { usePictureRoom } from '../../ui/pictures/usePictureRoom';
import { tesseraLetter } from '../../ui/Tessera';

const STEPS = 12;
const BOX = { top: 34, bottom: 340 };

/** Who leads for every share of two headings: what the choice of weights decides, seen at once. */
export function WeightsMap({ plan, card }: { plan: Plan; card: Card }) {
  const rows = card.rows;
  const { width: room, narrow } = usePictureRoom('whole');
  const width = room;
  const [left, right] = narrow ? [44, width - 16] : [74, width - 40];
  const [[a, b], setChosen] = useState<[number, number]>([0, 1]);
  const points = useMemo(
    () =>
      card.contenders
        .filter((c) => c.score !== null)
        .map((c) => ({ name: c.id, points: rows.map((r) => r.cells.get(c.id)!.points ?? 0) })),
    [card, rows],
  );
  const [x, y] = [rows[a], rows[b]];
  const cells = useMemo(
    () =>
      points.length < 2 || !x || !y || a === b
        ? []
        : weightsMap(
            rows.map((r) => r.heading.weight),
            points,
            [a, b],
            STEPS,
          ),
    [rows, points, a, b, x, y],
  );
  if (rows.length < 3 || points.length < 2 || !x || !y) return null;
  const total = rows.reduce((s, r) => s + r.heading.weight, 0);
  const share = (i: number) => (total > 0 ? rows[i]!.heading.weight / total : 0);
  const [sx, sy] = [scaleLinear([0, 1], [left, right]), scaleLinear([0, 1], [BOX.bottom, BOX.top])];
  const order = (id: string) => plan.treatments.findIndex((t) => t.id === id);
  const per = (v: number) => String(Math.round(100 * v));
  const ticks = [0, 0.25, 0.5, 0.75, 1];
  const choose = (which: 0 | 1, i: number) =>
    setChosen(which === 0 ? [i, i === b ? a : b] : [i === a ? b : a, i]);
  const side = (right - left) / STEPS;
  const high = (BOX.bottom - BOX.top) / STEPS;
  return (
    <section aria-label="Map of two weights" className="stack" style={{ marginTop: '1.2rem' }}>
      <h2>What two weights decide</h2>
      <div className="inline-row">
        {([0, 1] as const).map((which) => (
          <TextField
            key={which}
            select
            size="small"
            label={which === 0 ? 'Across' : 'Upwards'}
            value={which === 0 ? a : b}
            sx={{ width: 220 }}
            onChange={(e) => choose(which, Number(e.target.value))}
          >
            {rows.map((r, i) => (
              <MenuItem key={r.heading.id} value={i}>
                {r.heading.name}
              </MenuItem>
            ))}
          </TextField>
        ))}
      </div>
      <Picture
        drawing={{
          ...{ width, height: 400 },
          marks: [
            ...cells.flatMap((c): Mark[] => {
              const index = c.leader === null ? -1 : order(c.leader);
              const ink = index >= 0 ? inkOf(index) : 'soft';
              const square: Mark = {
                ...{ mark: 'rect', at: [sx(c.x) - side / 2, sy(c.y) - high / 2], opacity: 0.22 },
                ...{ width: side - 1, height: high - 1, fill: ink },
              };
              return [
                ...(index >= 0 ? [square] : []),
                {
                  ...{ mark: 'text', at: [sx(c.x), sy(c.y) + 4], anchor: 'middle', size: 12, ink },
                  text: index >= 0 ? tesseraLetter(index) : '–',
                },
              ];
            }),
            {
              ...{ mark: 'dot', at: [sx(share(a)), sy(share(b))], radius: 9, fill: null },
              ...{ stroke: 'ink', width: 2.5 },
            },
            ...axisBelow({
              ...{ ticks, at: sx, from: left, to: right, across: BOX.bottom, say: per },
              title: `${x.heading.name}, %`,
            }),
            ...axisLeft({
              ...{ ticks, at: sy, from: BOX.top, to: right, across: left, say: per },
              title: `${y.heading.name}, %`,
            }),
          ],
        }}
        label={`Who leads for every weight of ${x.heading.name.toLowerCase()} and ${y.heading.name.toLowerCase()}: ${sayAreas(cells, (id) => plan.treatments.find((t) => t.id === id)?.name ?? id)}`}
        file={`${plan.code} weights of ${x.heading.name} and ${y.heading.name}`}
        caption="Each square is a choice of weights, in per cent; the letter says who leads there, a dash that several are level. The other headings share what is left as they do now; the ring is where the weights stand."
      />
    </section>
  );
}

/** Who leads in how much of the map. @example 'A leads in 60 %, B in 40 %' */
function sayAreas(cells: readonly MapCell[], nameOf: (id: string) => string): string {
  const leaders = [...new Set(cells.flatMap((c) => (c.leader === null ? [] : [c.leader])))];
  return listNames(
    leaders.map(
      (id) =>
        `${nameOf(id)} in ${Math.round((100 * cells.filter((c) => c.leader === id).length) / cells.length)} %`,
    ),
  );
}
