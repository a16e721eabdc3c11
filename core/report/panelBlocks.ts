import type { TrialState } from '../log/state';
import { asksScores, panelKinds } from '../model/panel';
import { planIndex } from '../plan/planIndex';
import { formatFigure, listNames } from '../quantity/format';
import { type PanelOutcome, panelOutcome } from '../sensory/panelOutcome';
import { sayPanel } from '../sensory/sayPanel';
import { type HeldSession, sessionsOf } from '../sensory/sessions';
import type { NameOf } from '../model/nameOf';
import { type Block, column, numbers, text } from './block';

/** What tastings and look sessions showed; those that aren't revealed yet aren't told. */
export function panelBlocks(state: TrialState, nameOf: NameOf): Block[] {
  const order = state.plan.treatments.map((t) => t.id);
  return sessionsOf(state).flatMap((held): Block[] => {
    const outcome = panelOutcome(held, order);
    if (!outcome || !held.revealed) return [];
    const { session } = held;
    const { headline, notes, smallPrint } = sayPanel(session, outcome, nameOf);
    const { tasters, finished } = outcome;
    const all = finished === tasters ? '' : `, ${finished} of whom answered all`;
    return [
      { type: 'heading', level: 2, text: session.name },
      {
        type: 'paragraph',
        tone: 'small',
        text: `Blind, under codes of three digits: ${panelKinds[session.kind]}; ${listNames(session.senses)}; ${tasters} ${tasters === 1 ? 'taster' : 'tasters'}${all}, order of serving drawn by lot.`,
      },
      { type: 'paragraph', text: headline },
      ...(held.revealed.holds
        ? []
        : [
            {
              type: 'paragraph' as const,
              tone: 'warning' as const,
              text: 'What the reveal says was in the cups isn’t what the session began with: its key was changed.',
            },
          ]),
      ...outcome.scored.map((thing) => figures(state, held, thing, nameOf)),
      ...(notes.length > 0 ? [{ type: 'list' as const, items: notes }] : []),
      ...wordTable(outcome, nameOf),
      ...smallPrint.map((s): Block => ({ type: 'paragraph', tone: 'small', text: s })),
    ];
  });
}

function figures(
  { plan }: TrialState,
  { session }: HeldSession,
  thing: PanelOutcome['scored'][number],
  nameOf: NameOf,
): Block {
  const figure = (value: number | null, decimals: number) =>
    ({ type: 'figure', value: value === null || Number.isNaN(value) ? null : value, decimals }) as const;
  return {
    type: 'table',
    columns: [
      column(thing.name),
      numbers('servings'),
      numbers(asksScores(session.kind) ? 'middle score' : 'middle place'),
      numbers('mean'),
      numbers('rank sum'),
    ],
    rows: thing.treatments.map((t) => ({
      cells: [
        { type: 'treatment', name: nameOf(t.id), order: planIndex(plan).treatmentOrder(t.id) },
        figure(t.n, 0),
        figure(t.median, 1),
        figure(t.mean, 1),
        figure(t.rankSum, 1),
      ],
    })),
  };
}

/** How often each word was ticked of each contender. */
function wordTable({ words, treatments }: PanelOutcome, nameOf: NameOf): Block[] {
  if (words.length === 0) return [];
  return [
    {
      type: 'table',
      columns: [column('word'), ...treatments.map((t) => column(nameOf(t)))],
      rows: words.map((w) => ({
        cells: [
          text(w.word),
          ...treatments.map((id) => {
            const proportion = w.treatments.find((t) => t.id === id);
            return text(
              !proportion || proportion.n === 0
                ? '–'
                : `${proportion.k}/${proportion.n} (${formatFigure(100 * proportion.low!, 0)} to ${formatFigure(100 * proportion.high!, 0)} %)`,
            );
          }),
        ],
      })),
    },
  ];
}
