// docs/speed.md: what was measured, and what runs before the first screen.
import type { Row } from './rows';

/** A script that ran before the first screen. */
export interface BeforeFirst {
  /** its name in the build, without its hash */
  name: string;
  /** as it is run, kB */
  kB: number;
}

/** Why a script is there before the first screen, by how its name begins. */
const reasons: [begins: string, why: string][] = [
  ['interface', 'React, the router, fields and dialogs'],
  ['shared', 'what sixteen pages and more share: model, log, store, quantities'],
  ['entry.client', 'starts React on the page'],
  ['root', 'colours, notices, the page around everything'],
  ['manifest', 'which files belong to which address'],
  ['demo', 'makes the demo bench, once'],
  ['today', 'the page itself'],
  ['Today', 'the page itself'],
  ['BenchLayout', 'the frame of the bench’s pages'],
  ['RoomBoundary', 'says what went wrong in a room'],
];
const whyOf = (name: string) =>
  reasons.find(([begins]) => name.startsWith(begins))?.[1] ?? 'asked for by one of the others';

/** The page, in Markdown. */
export function speedPage(rows: readonly Row[], before: readonly BeforeFirst[], day: string): string {
  const sorted = [...before].sort((a, b) => b.kB - a.kB);
  const total = sorted.reduce((s, f) => s + f.kB, 0);
  return [
    '# Speed',
    '',
    `Measured by \`npm run bench -- --write\` on ${day}, on a machine with two cores that swings by a factor of two; do not edit.`,
    '',
    '| work | measured | to hold |  |',
    '| --- | ---: | ---: | --- |',
    ...rows.map((r) => `| ${r.work} | ${r.measured} | ${r.limit} | ${r.held ? '' : 'not held'} |`),
    '',
    '## What runs before the first screen',
    '',
    `${total.toFixed(0)} kB in ${sorted.length} scripts, as they are run.`,
    '',
    '| script | kB | why |',
    '| --- | ---: | --- |',
    ...sorted.map((f) => `| ${f.name} | ${f.kB.toFixed(1)} | ${whyOf(f.name)} |`),
    '',
  ].join('\n');
}
