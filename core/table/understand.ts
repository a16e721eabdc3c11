import { type Result, err, ok } from '../model/result';
import { commonName, datesOf, dayNamed, isDays, splitUnit, spoken } from './headings';
import { type Grid, type Sheet, figureIn, sheetOf } from './sheet';
import type {
  Column,
  Named,
  Reading,
  ResponseKind,
  Role,
  TableFault,
  TableTrait,
  Understood,
} from './understood';
import {
  controlLevel,
  identifies,
  isTreatment,
  isWhoever,
  kindWords,
  missing,
  neverFigures,
  ofAll,
  roleWords,
} from './words';

/** A column as it stands in the file, with what its cells are. */
interface Seen {
  at: number;
  heading: string;
  name: string;
  unit: string;
  cells: string[];
  /** figures of the cells that aren't missing; null where one is no figure */
  figures: (number | null)[];
  numeric: boolean;
  /** cells such as 14/20 */
  ratio: boolean;
  levels: string[];
}

const ratioCell = /^(\d+)\s*(?:\/|of)\s*(\d+)$/i;

function seenIn({ heading, rows, decimal }: Sheet): Seen[] {
  return heading.map((h, at) => {
    const cells = rows.map((r) => r.cells[at]!);
    const there = cells.filter((c) => !missing.test(c));
    const figures = there.map((c) => figureIn(c, decimal));
    const ratio = there.length > 0 && there.every((c) => ratioCell.test(c));
    return {
      ...{ at, heading: h, ...splitUnit(h), cells, figures, ratio },
      numeric: !ratio && there.length > 0 && figures.filter((f) => f !== null).length >= 0.8 * there.length,
      levels: [...new Set(there)],
    };
  });
}

/** A column that numbers the lines, or a setting of the trial: few levels, each as often, none of it measured. */
const isIndex = (c: Seen, rows: number) =>
  /^(|x|rownames?|row names|unnamed.*|index|#|nr|no|id)$/i.test(c.heading) &&
  c.levels.length === rows &&
  (!c.numeric || c.figures.every((f, i) => i === 0 || f === c.figures[i - 1]! + 1));
function isSetting(c: Seen, rows: number): boolean {
  if (!c.numeric || c.unit !== '' || c.levels.length < 2 || c.levels.length > 8) return false;
  const often = c.levels.map((l) => c.cells.filter((x) => x === l).length);
  return rows >= 3 * c.levels.length && new Set(often).size === 1;
}

function kindOfResponse({ name, unit, figures, ratio }: Seen): ResponseKind {
  if (ratio) return 'ratio';
  const text = spoken(name);
  const whole = figures.every((f) => f === null || (Number.isInteger(f) && f >= 0));
  if (kindWords.days.test(text) && whole) return 'days';
  if (kindWords.score.test(text) && figures.every((f) => f === null || (f >= 0 && f <= 10))) return 'score';
  return whole && unit === '' && kindWords.count.test(text) ? 'count' : 'number';
}

/** What each column is for; what was named by hand comes first. */
function rolesOf(seen: readonly Seen[], rows: number, named: Named): Result<Map<number, Role>, TableFault> {
  const role = new Map<number, Role>();
  for (const as of ['treatment', 'response', 'unit', 'block'] as const) {
    const wanted = named[as];
    if (wanted === undefined) continue;
    const column = seen.find((c) => c.heading === wanted || c.name === wanted || c.name.toLowerCase() === wanted.toLowerCase()); // prettier-ignore
    if (!column)
      return err({ text: `There is no column “${wanted}”; there are ${seen.map((c) => c.name).filter(Boolean).join(', ')}.` }); // prettier-ignore
    role.set(column.at, as);
  }
  const free = () => seen.filter((c) => !role.has(c.at));
  const isTaken = (r: Role) => [...role.values()].includes(r);
  for (const c of free()) if (isIndex(c, rows) || c.levels.length === 0) role.set(c.at, 'ignored');
  const [k, n] = [ofAll.k, ofAll.n].map((w) => free().find((c) => w.test(spoken(c.name)) && c.numeric));
  // So many of so many: never more than there were, and more than one somewhere.
  const counts = k && n && k !== n && n.figures.length === k.figures.length;
  const whole = counts && n.figures.every((f, i) => f !== null && f >= 1 && (k.figures[i] ?? f + 1) <= f);
  if (k && n && whole && n.figures.some((f) => f! > 1) && !named.response) {
    role.set(k.at, 'k');
    role.set(n.at, 'n');
  }
  for (const c of free()) if (neverFigures.test(spoken(c.name))) role.set(c.at, 'ignored');
  const said = treatmentsNamed(free());
  if (!said.ok && !isTaken('treatment')) return said;
  if (said.ok && said.value && !isTaken('treatment')) role.set(said.value.at, 'treatment');
  asUnits(
    free(),
    seen.find((c) => role.get(c.at) === 'treatment'),
    role,
  );
  for (const [as, words] of roleWords)
    for (const c of free()) {
      if (!words.test(spoken(c.name))) continue;
      // A table has one treatment, one unit; a second that is called so too is a setting, or the number of a line.
      if (isTaken(as) && as !== 'block') continue;
      if (as === 'day' && (c.unit !== '' || !isDays(c.levels))) continue;
      if (as === 'treatment' && c.levels.length < 2) continue;
      role.set(c.at, as);
    }
  for (const c of free()) if (identifies.test(spoken(c.name)) && !isTaken('unit')) role.set(c.at, 'unit');
  asPairs(seen, role);
  return ok(role);
}

/**
 * Of several columns that number units (tank and plant) the coarsest is what got its product on its own, as far as a table
 * tells; those within it are samples, those that say the same again are left.
 */
function asUnits(seen: readonly Seen[], treatment: Seen | undefined, role: Map<number, Role>): void {
  const words = roleWords.find(([as]) => as === 'unit')![1];
  const named = seen.filter((c) => words.test(spoken(c.name)));
  if (named.length < 2 || [...role.values()].includes('unit')) return;
  const many = (c: Seen) => new Set(c.cells.map((u, i) => JSON.stringify([u, treatment?.cells[i]]))).size;
  const unit = named.reduce((a, b) => (many(b) < many(a) ? b : a));
  for (const c of named) role.set(c.at, c === unit ? 'unit' : many(c) > many(unit) ? 'sample' : 'ignored');
}

/** The column that is called the treatment: where several are, the one that says so outright, or that none of the others crosses. */
function treatmentsNamed(seen: readonly Seen[]): Result<Seen | null, TableFault> {
  const words = roleWords.find(([as]) => as === 'treatment')![1];
  const named = seen.filter((c) => words.test(spoken(c.name)) && c.levels.length >= 2);
  const outright = named.find((c) => isTreatment.test(spoken(c.name)));
  if (outright || named.length < 2) return ok(outright ?? named[0] ?? null);
  // One that only says more of another (its maker, its kind) goes with it.
  const follows = (a: Seen, b: Seen) => new Set(a.cells.map((x, i) => JSON.stringify([x, b.cells[i]]))).size === a.levels.length; // prettier-ignore
  const finest = named.find((c) => named.every((o) => follows(c, o)));
  return finest
    ? ok(finest)
    : err({ text: `Which column is the treatment? It may be ${named.map((c) => c.name).join(' or ')}: name it (--treatment).` }); // prettier-ignore
}

/** Somebody or something that got every treatment once isn't a unit of one: it is what they are compared within. */
function asPairs(seen: readonly Seen[], role: Map<number, Role>): void {
  const of = (r: Role) => seen.find((c) => role.get(c.at) === r);
  const [unit, treatment] = [of('unit'), of('treatment')];
  if (!unit || !treatment || of('block') || of('day') || of('sample')) return;
  if (!isWhoever.test(spoken(unit.name))) return;
  const pairs = unit.cells.map((u, i) => JSON.stringify([u, treatment.cells[i]]));
  const each = unit.levels.length * treatment.levels.length;
  if (pairs.length === each && new Set(pairs).size === each) role.set(unit.at, 'block');
}

/** Columns that could be the treatment: few words, each again and again. */
const couldBeTreatment = (c: Seen, rows: number) =>
  !c.numeric && !c.ratio && c.levels.length >= 2 && c.levels.length <= Math.max(2, rows / 2);

/**
 * Understands a table somebody already has.
 * @param named columns named by hand, and the control: they overrule what was found
 */
export function understand(grid: Grid, named: Named = {}): Result<Understood, TableFault> {
  const read = sheetOf(grid);
  if (!read.ok) return read;
  const sheet = read.value;
  const seen = seenIn(sheet);
  const rows = sheet.rows.length;
  const roles = rolesOf(seen, rows, named);
  if (!roles.ok) return roles;
  const role = roles.value;
  const of = (r: Role) => seen.find((c) => role.get(c.at) === r);
  const free = () => seen.filter((c) => !role.has(c.at));

  // A column for each day: figures under headings that are days.
  const days = free().filter((c) => c.numeric && isDays([c.heading]));
  const wideByDay = days.length >= 2 && named.response === undefined;
  if (!of('treatment')) {
    const could = free().filter((c) => couldBeTreatment(c, rows));
    if (could.length > 1)
      return err({ text: `Which column is the treatment? It may be ${could.map((c) => c.name).join(' or ')}: name it (--treatment).` }); // prettier-ignore
    if (could[0]) role.set(could[0].at, 'treatment');
  }
  const measured = free().filter((c) => c.numeric || c.ratio);
  const notSet = measured.filter((c) => !isSetting(c, rows));
  // Where all look like settings one of them is what was measured.
  const figures = notSet.length > 0 || of('k') ? notSet : measured;
  const wideByTreatment =
    !of('treatment') && !of('k') && named.response === undefined && !wideByDay && figures.length >= 2 && figures.every((c) => c.unit === '' || c.unit === figures[0]!.unit); // prettier-ignore
  if (!of('treatment') && !wideByTreatment) {
    const settings = seen.filter((c) => !role.has(c.at) && isSetting(c, rows)).map((c) => c.name);
    return err({
      text:
        settings.length > 0
          ? `Which column is the treatment? It may be ${settings.join(' or ')}: name it (--treatment).`
          : 'No column says what each line got: name the treatment’s (--treatment).',
    });
  }
  for (const c of free()) {
    const result = figures.includes(c) && (named.response === undefined || wideByDay);
    role.set(
      c.at,
      result ? 'response' : c.numeric || c.ratio || c.levels.length < rows / 2 ? 'ignored' : 'words',
    );
  }
  const responses = seen.filter((c) => role.get(c.at) === 'response');
  if (responses.length === 0 && !of('k'))
    return err({ text: 'No column of figures to compare was found: name it (--response).' });
  const shape = wideByDay || wideByTreatment ? 'wide' : 'long';
  const turned = wideByDay ? 'days' : wideByTreatment ? 'treatments' : null;
  const made = readingsOf(sheet, seen, role, turned);
  if (!made.ok) return made;
  const { traits, readings } = made.value;
  const levels = [...new Set(readings.map((r) => r.treatment))];
  if (levels.length < 2)
    return err({ text: `Only one treatment, “${levels[0] ?? ''}”: a comparison needs at least two.` });
  const control = named.control ?? levels.find((l) => controlLevel.test(l)) ?? null;
  if (control !== null && !levels.includes(control))
    return err({ text: `The control “${control}” isn’t among the treatments: ${levels.join(', ')}.` });
  return ok({
    ...{ shape, rows, control, traits, readings, decimal: sheet.decimal },
    left: sheet.left.toSorted((a, b) => a.row - b.row),
    treatments: [...levels].sort((a, b) => Number(b === control) - Number(a === control)),
    columns: seen.map((c): Column => ({
      ...{ name: c.name, role: role.get(c.at)! },
      ...(role.get(c.at) === 'response' && { kind: kindOfResponse(c) }),
      ...(c.unit !== '' && { unit: c.unit }),
    })),
  });
}

function readingsOf(
  { rows, decimal }: Sheet,
  seen: readonly Seen[],
  role: ReadonlyMap<number, Role>,
  turned: 'days' | 'treatments' | null,
): Result<{ traits: TableTrait[]; readings: Reading[] }, TableFault> {
  const all = (r: Role) => seen.filter((c) => role.get(c.at) === r);
  const [treatment, unit, crop, sample, day, k, n] = (['treatment', 'unit', 'crop', 'sample', 'day', 'k', 'n'] as const).map((r) => all(r)[0]); // prettier-ignore
  const [block, second] = all('block');
  const responses = all('response');
  const asTrait = (c: Seen): TableTrait => ({ name: c.name, unit: c.unit, kind: kindOfResponse(c) });
  const traits: TableTrait[] =
    turned === null
      ? [...(k ? [{ name: k.name, unit: '', kind: 'ratio' as const }] : []), ...responses.map(asTrait)]
      : [
          {
            ...asTrait(responses[0]!),
            name: turned === 'days' ? commonName(responses.map((c) => c.name)) : 'value',
          },
        ];
  const readings: Reading[] = [];
  const dates = day && !day.levels.every((l) => dayNamed(l) !== null) ? datesOf(day.levels) : null;
  const first = dates ? Math.min(...dates.values()) : 0;
  for (const { row, cells } of rows) {
    const label = (c: Seen | undefined) => (c === undefined ? null : cells[c.at]!);
    const fault = (c: Seen, what: string) => err({ text: `Row ${row}, column “${c.heading}”: ${what}` });
    for (const c of [treatment, unit, block, day]) if (c && missing.test(cells[c.at]!)) return fault(c, 'is empty.'); // prettier-ignore
    const date = day ? (dates?.get(cells[day.at]!) ?? null) : null;
    const when = !day ? null : date !== null ? date - first : dayNamed(cells[day.at]!)! * (/^w/i.test(day.name) ? 7 : 1); // prettier-ignore
    const base = {
      ...{
        row,
        treatment: label(treatment) ?? '',
        unit: label(unit),
        block: label(block),
        column: label(second),
      },
      ...{ crop: label(crop), sample: label(sample), day: when },
    };
    if (k && n) {
      const empty = missing.test(cells[k.at]!);
      const [hits, of] = [empty ? 0 : figureIn(cells[k.at]!, decimal), figureIn(cells[n.at]!, decimal)];
      if (hits === null || of === null) return fault(hits === null ? k : n, 'a whole number is wanted.');
      if (!Number.isInteger(hits) || !Number.isInteger(of) || hits > of || hits < 0 || of < 1)
        return fault(k, `${hits} of ${of} isn’t a count out of a whole.`);
      readings.push({ ...base, trait: 0, value: empty ? null : hits, n: of });
    }
    for (const [i, c] of responses.entries()) {
      const text = cells[c.at]!;
      const own = {
        ...base,
        trait: turned === null ? i + (k ? 1 : 0) : 0,
        ...(turned === 'treatments' && { treatment: c.name, unit: base.unit ?? null }),
        ...(turned === 'days' && {
          day: dayNamed(c.heading) ?? datesOf([c.heading])!.get(c.heading)!,
          unit: base.unit ?? `line ${row}`,
        }),
      };
      if (missing.test(text)) {
        readings.push({ ...own, value: null });
        continue;
      }
      const ratio = ratioCell.exec(text);
      if (ratio) {
        readings.push({ ...own, value: Number(ratio[1]), n: Number(ratio[2]) });
        continue;
      }
      const value = figureIn(text, decimal);
      if (value === null) return fault(c, `“${text}” isn’t a number.`);
      readings.push({ ...own, value });
    }
  }
  if (turned === 'days') {
    const earliest = Math.min(...readings.map((r) => r.day!));
    // Dates begin with the first of them; days are days.
    if (earliest > 3000) for (const r of readings) r.day! -= earliest;
  }
  return ok({ traits, readings });
}
