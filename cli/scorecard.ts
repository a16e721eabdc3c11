import {
  type Heading,
  type Points,
  type ScorecardError,
  scorecard as weigh,
} from '~core/scorecard/scorecard';
import { readArgs } from './options';
import { PlainError } from './plainError';
import { DataFile, common, figure, lines, needed, oneFile } from './table';

export const scorecardUsage = `palazzo scorecard FILE --contender COL --weights looks=1,yield=3,value=2 [--json]`;

/** Headings with their weights, as they are written: looks=1,yield=3. */
function headingsOf(text: string): Heading[] {
  const headings = text
    .split(',')
    .filter((part) => part.trim() !== '')
    .map((part): Heading => {
      const at = part.lastIndexOf('=');
      const [name, figureText] =
        at < 0 ? [part.trim(), ''] : [part.slice(0, at).trim(), part.slice(at + 1).trim()];
      const weight = Number(figureText);
      if (name === '' || figureText === '' || !Number.isFinite(weight) || weight < 0) {
        throw new PlainError(
          `--weights: “${part.trim()}” isn't a heading with a weight from 0, such as looks=1.`,
        );
      }
      return { name, weight };
    });
  const twice = headings.find((h, i) => headings.findIndex((o) => o.name === h.name) !== i);
  if (twice) throw new PlainError(`--weights names “${twice.name}” twice.`);
  return headings;
}

const sayFault = (e: ScorecardError): string => {
  switch (e.tag) {
    case 'noHeadings':
      return '--weights names no heading.';
    case 'badWeight':
      return `--weights: the weight of “${e.heading}” must be a number from 0.`;
    case 'noWeight':
      return '--weights: one heading at least needs a weight above 0.';
    case 'fewContenders':
      return 'Two contenders or more are needed.';
  }
};

/** Runs `scorecard` and returns what goes to stdout. */
export function scorecard(args: string[]): string {
  const { json, alpha, seed, unit } = common;
  const { values, positionals } = readArgs(
    args,
    { json, alpha, seed, unit, contender: { type: 'string' }, weights: { type: 'string' } },
    true,
  );
  const data = new DataFile(oneFile(positionals));
  const contenderAt = data.column(needed('contender', values.contender));
  const headings = headingsOf(needed('weights', values.weights));
  const columns = headings.map((h) => data.column(h.name));
  const seen = new Set<string>();
  const contenders = Array.from({ length: data.size }, (_, i): Points => {
    const name = data.label(i, contenderAt);
    if (seen.has(name)) data.refuse(i, contenderAt, `“${name}” is there twice.`);
    seen.add(name);
    const points = columns.map((c) => {
      const value = data.number(i, c);
      if (value < 0 || value > 10) data.refuse(i, c, `${value} isn't between 0 and 10.`);
      return value;
    });
    return { name, points };
  });
  const made = weigh(headings, contenders);
  if (!made.ok) throw new PlainError(sayFault(made.error));
  if (values.json) return JSON.stringify(made.value);
  return [
    lines(
      ['contender', 'score', 'place'],
      made.value.contenders.map((c) => [c.name, figure(c.score), String(c.place)]),
    ),
    '',
    lines(
      ['heading', 'weight', 'another leads from', 'who'],
      made.value.flips.map((f) => [f.heading, figure(f.weightNow), figure(f.weightThen), f.winner ?? '–']),
    ),
  ].join('\n');
}
