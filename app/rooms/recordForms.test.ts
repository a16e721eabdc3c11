// Every form of a record, edited in two tabs in all orders: what either typed stands in the record or is asked about.
import { describe, expect, it } from 'vitest';
import { ReviewText } from '~core/log/trial';
import type { Json } from '~core/model/merge';
import { product } from '~core/testing/trial';
import { finished } from '../demo/finishedTrial';
import { type RecordForm, applied } from '../form/recordForm';
import { recordForms } from './recordForms';

type Form = RecordForm<unknown>;
type Thing = Record<string, unknown>;

/** A change of a form's values, and whether it still stands in others. */
interface Edit {
  name: string;
  make: (values: unknown) => unknown;
  stands: (values: unknown) => boolean;
}

const isThing = (v: unknown): v is Thing => typeof v === 'object' && v !== null && !Array.isArray(v);
const idOf = (v: unknown) => (isThing(v) && typeof v.id === 'string' ? v.id : undefined);

type Step = string | { id: string };
const at = (values: unknown, path: readonly Step[]): unknown =>
  path.reduce<unknown>(
    (v, step) =>
      v === undefined || v === null
        ? undefined
        : typeof step === 'string'
          ? (v as Thing)[step]
          : (v as unknown[]).find((x) => idOf(x) === step.id),
    values,
  );

/** The values with another value at a path; undefined takes it away. */
function put(values: unknown, [step, ...rest]: readonly Step[], to: unknown): unknown {
  if (step === undefined) return to;
  if (typeof step === 'string')
    return { ...(values as Thing), [step]: put((values as Thing)[step], rest, to) };
  return (values as unknown[]).flatMap((v) => {
    if (idOf(v) !== step.id) return [v];
    const next = put(v, rest, to);
    return next === undefined ? [] : [next];
  });
}

const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);

/** Other values a leaf might have, by what its form says when it is asked. */
function others(form: Form, values: unknown, path: readonly Step[], now: unknown): unknown[] {
  const fits = (to: unknown) => form.schema.safeParse(put(values, path, to)).success;
  if (typeof now === 'boolean') return [!now].filter(fits);
  if (typeof now === 'number') return [now + 1, now + 2].filter(fits);
  if (Array.isArray(now)) return [[], [...now, ...now.slice(0, 1)]].filter((v) => !same(v, now) && fits(v));
  if (now === null) return [3, 4, 'EUR', 'CHF'].filter(fits).slice(0, 2);
  if (typeof now !== 'string') return [];
  const asked = form.schema.safeParse(put(values, path, '…no such…'));
  const choices = asked.success
    ? []
    : asked.error.issues.flatMap((i) => ('values' in i ? (i.values as unknown[]) : []));
  const figure = Number(now);
  const tries =
    choices.length > 0
      ? choices
      : now !== '' && Number.isFinite(figure)
        ? [String(figure + 1), String(figure + 2), String(Math.max(1, figure - 1))]
        : [`${now} b`.trim(), `${now} c`.trim(), '3', '4', '2026-05-06', '2026-05-07', 'CHF', 'SEK'];
  return tries.filter((v) => v !== now && fits(v)).slice(0, 2);
}

function leaves(v: unknown, path: readonly Step[] = []): (readonly Step[])[] {
  if (Array.isArray(v))
    return v.every((x) => idOf(x) !== undefined)
      ? v.slice(0, 2).flatMap((x) => leaves(x, [...path, { id: idOf(x)! }]))
      : [path];
  return isThing(v)
    ? Object.entries(v).flatMap(([k, x]) => (k === 'id' ? [] : leaves(x, [...path, k])))
    : [path];
}

const lists = (v: unknown, path: readonly Step[] = []): (readonly Step[])[] =>
  Array.isArray(v)
    ? v.length > 0 && v.every((x) => idOf(x) !== undefined)
      ? [path, ...v.slice(0, 2).flatMap((x) => lists(x, [...path, { id: idOf(x)! }]))]
      : []
    : isThing(v)
      ? Object.entries(v).flatMap(([k, x]) => lists(x, [...path, k]))
      : [];

const said = (path: readonly Step[]) => path.map((s) => (typeof s === 'string' ? s : `#${s.id}`)).join('.');

/** Everything somebody can do in a form: fields, and things of its lists removed, added and put in another order. */
function editsOf(form: Form, values: unknown): Edit[] {
  const fields = leaves(values).flatMap((path) =>
    others(form, values, path, at(values, path)).map((to, i): Edit => ({
      name: `${said(path)} = ${JSON.stringify(to)} (${i})`,
      make: (v) => put(v, path, to),
      // What was typed bare is shown with its unit where the other tab chose other units.
      stands: (v) => same(at(v, path), to) || String(at(v, path)).startsWith(`${String(to)} `),
    })),
  );
  const ofLists = lists(values).flatMap((path): Edit[] => {
    const items = at(values, path) as Thing[];
    const last = items.at(-1)!;
    const added = { ...last, id: `${String(last.id)}-new`, ...('name' in last && { name: 'Quite new' }) };
    const fits = (to: unknown) => form.schema.safeParse(put(values, path, to)).success;
    const turned = [...items].reverse().map((x) => x.id);
    return [
      ...(fits(items.slice(0, -1))
        ? [
            {
              name: `${said(path)} without ${String(last.id)}`,
              make: (v: unknown) => put(v, [...path, { id: String(last.id) }], undefined),
              stands: (v: unknown) => at(v, [...path, { id: String(last.id) }]) === undefined,
            },
          ]
        : []),
      ...(fits([...items, added])
        ? [
            {
              name: `${said(path)} with one more`,
              make: (v: unknown) => put(v, path, [...(at(v, path) as Thing[]), added]),
              stands: (v: unknown) => at(v, [...path, { id: added.id }]) !== undefined,
            },
          ]
        : []),
      ...(items.length > 1 && fits([...items].reverse())
        ? [
            {
              name: `${said(path)} turned`,
              make: (v: unknown) => put(v, path, [...(at(v, path) as Thing[])].reverse()),
              stands: (v: unknown) =>
                same(
                  (at(v, path) as Thing[]).map((x) => x.id).filter((id) => turned.includes(id)),
                  turned.filter((id) => (at(v, path) as Thing[]).some((x) => x.id === id)),
                ),
            },
          ]
        : []),
    ];
  });
  return [...fields, ...ofLists];
}

const { trial } = finished((offset) => new Date(Date.UTC(2026, 2, 1 + offset)).toISOString().slice(0, 10));
const { plan } = trial;
const review = ReviewText.parse({
  ...trial.review,
  headings: ['h1', 'h2'].map((id) => ({
    ...{ id, name: `Heading ${id}`, weight: 2, from: { kind: 'own', points: {} } },
  })),
});
const sold = product({
  claims: [
    { id: 'c1', text: 'More fruit.' },
    { id: 'c2', text: 'Larger leaves.' },
  ],
} as never);
const records: [keyof typeof recordForms, unknown][] = [['plan', plan], ['review', review], ['product', sold]]; // prettier-ignore
const forms = records.flatMap(([kind, record]) =>
  (recordForms[kind] as unknown as Form[]).map((form) => [`${kind}: ${form.name}`, form, record] as const),
);

describe('a form in two tabs', () => {
  it.each(forms)('%s: nothing typed is lost, nothing silently put over', (_, form, record) => {
    const began = form.shown(record);
    const edits = editsOf(form, began);
    expect(edits.length).toBeGreaterThan(1);
    const lost: string[] = [];
    let asked = 0;
    // Every pair in both orders; of many fields every seventh of the pairs.
    const step = edits.length > 40 ? 7 : 1;
    let n = 0;
    for (const first of edits)
      for (const second of edits) {
        n += 1;
        if (first.name !== second.name && n % step !== 0) continue;
        const one = applied(form, { base: began, values: first.make(began) }, record);
        if (!one.ok) continue;
        const two = applied(form, { base: began, values: second.make(began) }, one.value);
        if (!two.ok && two.error.tag === 'conflicts') {
          asked += 1;
          // What is asked about holds both sides.
          const { merged, theirs } = two.error as { merged: Json; theirs: Json };
          const shown = form.shown(one.value);
          if (!same(theirs, shown)) lost.push(`${first.name} / ${second.name}: theirs`);
          if (merged === undefined) lost.push(`${first.name} / ${second.name}: merged`);
          continue;
        }
        // Refused at a field: nothing was kept, and what was typed stays on the screen.
        if (!two.ok) continue;
        const now = form.shown(two.value);
        // What one tab alone would drop of the two (a name that isn’t used) isn’t lost by the other.
        const both = applied(form, { base: began, values: second.make(first.make(began)) }, record);
        if (!both.ok) continue;
        const alone = form.shown(both.value);
        for (const [edit, which] of [
          [first, 'first'],
          [second, 'second'],
        ] as const)
          if (
            edit.stands(alone) &&
            !edit.stands(now) &&
            (edit === second || first.stands(form.shown(one.value)))
          )
            lost.push(`${first.name}, then ${second.name}: the ${which}`);
      }
    expect(lost).toEqual([]);
    expect(asked).toBeGreaterThan(0);
  });
});
