import { findingInput, findingOf } from '../account/findingInput';
import type { Finding } from '../account/finding';
import { afterOpening } from '../log/afterOpening';
import type { TrialState } from '../log/state';
import { headline } from '../say/words';
import { decimalsOfFinding } from '../say/sayContrast';
import type { NameOf } from '../model/nameOf';
import {
  type FactorialFinding,
  factorialFindings,
  levelName,
  saysFactorial,
} from '../looks/factorialFinding';
import { type Block, type TableBlock, column, numbers, text } from './block';

/** Means by two factors (or contender and crop), as a table. */
function cellsTable(f: FactorialFinding, { plan }: TrialState, finding: Finding, nameOf: NameOf): TableBlock {
  const name = (factor: number, level: string) => levelName(plan, nameOf, f.names[factor] ?? '', level);
  const seconds = [...new Set(f.cells.map((c) => c.levels[1]))];
  const firsts = [...new Set(f.cells.map((c) => c.levels[0]))];
  return {
    type: 'table',
    columns: [column(f.names[0] ?? ''), ...seconds.map((s) => numbers(name(1, s)))],
    rows: firsts.map((first) => ({
      cells: [
        text(name(0, first)),
        ...seconds.map((second) => {
          const cell = f.cells.find((c) => c.levels[0] === first && c.levels[1] === second);
          return cell
            ? ({ type: 'figure', value: cell.mean, decimals: decimalsOfFinding(finding) } as const)
            : text('–');
        }),
      ],
    })),
  };
}

/** What stands beside a finding in the record: factors and crops, and the same with borderline cases counted. */
export function besideFinding(state: TrialState, finding: Finding, nameOf: NameOf, today: string): Block[] {
  const trait = state.plan.traits.find((t) => t.id === finding.trait.id);
  if (!trait) return [];
  const crossed = factorialFindings(findingInput(state, trait, { today }));
  const borderline = state.observations.some((o) => o.traitId === trait.id && (o.borderline ?? 0) > 0);
  const counted = borderline ? findingOf(state, trait, { today, withBorderline: true }) : null;
  const opened = afterOpening(state);
  const then = opened && findingOf(opened.before, trait, { today });
  return [
    ...(opened
      ? [
          {
            type: 'paragraph' as const,
            text: `As it stood when the codes were opened: ${then?.ok ? headline(then.value, nameOf).text : 'nothing could be said.'} What was written of the scores since stands under “What didn’t go to plan”.`,
          },
        ]
      : []),
    ...crossed.flatMap((f): Block[] => [
      {
        type: 'heading',
        level: 3,
        text: f.kind === 'crops' ? 'By crop' : `By ${f.names.join(' and ').toLowerCase()}`,
      },
      cellsTable(f, state, finding, nameOf),
      { type: 'list', items: saysFactorial(f) },
    ]),
    ...(counted?.ok
      ? [
          {
            type: 'paragraph' as const,
            text: `With borderline cases counted in: ${headline(counted.value, nameOf).text}`,
          },
        ]
      : []),
  ];
}
