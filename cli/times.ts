import { holm } from '~core/stats/holm';
import { type Seen, kaplanMeier, logRank, medianTime } from '~core/stats/survival';
import { readArgs, shareOption } from './options';
import {
  DataFile,
  type UnitRow,
  byUnit,
  common,
  figure,
  groupsOf,
  lines,
  meanOf,
  needed,
  oneFile,
  pText,
  wantControl,
} from './table';

export const timesUsage = `palazzo times FILE --treatment T --time COL --event COL --control C
  [--unit U] [--alpha 0.05] [--json]`;

/** Runs `times` and returns what goes to stdout. */
export function times(args: string[]): string {
  const { values, positionals } = readArgs(
    args,
    { ...common, time: { type: 'string' }, event: { type: 'string' } },
    true,
  );
  const data = new DataFile(oneFile(positionals));
  const at = {
    treatment: data.column(needed('treatment', values.treatment)),
    time: data.column(needed('time', values.time)),
    event: data.column(needed('event', values.event)),
    unit: values.unit === undefined ? null : data.column(values.unit),
  };
  const control = needed('control', values.control);
  const alpha = shareOption('alpha', values.alpha);
  const rows = Array.from({ length: data.size }, (_, i): UnitRow<Seen> => {
    const event = data.number(i, at.event);
    if (event !== 0 && event !== 1) data.refuse(i, at.event, 'must be 1 (happened) or 0 (not yet).');
    const time = data.number(i, at.time);
    if (time < 0) data.refuse(i, at.time, 'is before the start.');
    return {
      treatment: data.label(i, at.treatment),
      unit: at.unit === null ? `row ${i}` : data.label(i, at.unit),
      place: '',
      value: { time, happened: event === 1 },
    };
  });
  // What hadn't happened to all samples of a unit hadn't happened to the unit.
  const groups = groupsOf(
    byUnit(rows, (all) => ({ time: meanOf(all.map((s) => s.time)), happened: all.every((s) => s.happened) })),
  );
  wantControl(groups, control);
  const seen = (name: string) => groups.get(name)!.map((u) => u.value);
  const treatments = [...groups.keys()].map((name) => {
    const own = seen(name);
    return {
      name,
      n: own.length,
      events: own.filter((s) => s.happened).length,
      ...medianTime(kaplanMeier(own), alpha),
    };
  });
  const against = [...groups.keys()].filter((name) => name !== control);
  const tests = against.map((name) => logRank([seen(name), seen(control)]));
  const adjusted = holm(tests.map((t) => t.p));
  const overall = logRank([...groups.keys()].map(seen));
  const compared = {
    alpha,
    treatments,
    logRank: overall,
    versusControl: against.map((name, i) => ({
      name,
      chiSquare: tests[i]!.chiSquare,
      p: tests[i]!.p,
      pHolm: adjusted[i]!,
    })),
  };
  if (values.json) return JSON.stringify(compared);
  return [
    lines(
      ['treatment', 'n', 'happened', 'median', 'low', 'high'],
      treatments.map((t) => [
        t.name,
        String(t.n),
        String(t.events),
        ...[t.median, t.low, t.high].map(figure),
      ]),
    ),
    '',
    `Log-rank: χ²(${overall.df}) = ${figure(overall.chiSquare)}, p ${pText(overall.p)}`,
    lines(
      ['against control', 'χ²', 'p', 'p Holm'],
      compared.versusControl.map((c) => [c.name, figure(c.chiSquare), pText(c.p), pText(c.pHolm)]),
    ),
  ].join('\n');
}
