import type { EntryBody } from '~core/log/entry';
import type { PanelId, TreatmentId, UnitId } from '~core/model/ids';
import { type PanelKey, usualLiking, usualWords } from '~core/model/panel';
import type { Plan } from '~core/model/plan';
import { type PlannedSession, planSession } from '~core/sensory/planSession';
import { sha256Of } from '~core/plan/seal';
import { seededRandom } from '~core/stats/random';
import type { Day } from './demoParts';
import { treatmentId } from './demoTrials';

const cautions = [
  'A food crop, grown with inputs meant for food crops and used as their labels say.',
  'No pesticide on it, or its harvest interval has passed. Labels and local rules come first.',
  'Nobody at the table is allergic to the crop.',
  'Clean knife, clean cups, clean hands; shoots and sprouts were kept cold until now.',
  'When in doubt, it isn’t tasted.',
];

const pooled = (plan: Plan, id: TreatmentId) => ({
  treatmentId: id,
  unitIds: plan.units.filter((u) => u.treatmentId === id).map((u): UnitId => u.id),
  photo: null,
});

interface Sketch {
  name: string;
  tasters: string[];
  samples: readonly ReturnType<typeof pooled>[];
  guess: 'none' | 'same';
  seed: number;
}

function drawn(plan: Plan, s: Sketch): PlannedSession {
  const made = planSession(
    {
      ...{ id: `demo-panel-${plan.code}` as PanelId, name: s.name, kind: 'liking', presented: 'cups' },
      ...{ senses: ['taste', 'crunch'], asked: '', attributes: [usualLiking], words: [...usualWords] },
      ...{ tasters: s.tasters, samples: s.samples, repeats: 1, guess: s.guess, cautions },
    },
    s.seed,
    // Demo tastings are the same on every bench; a real one's salt comes from chance.
    sha256Of([plan.code, s.name]).slice(0, 32),
  );
  if (!made.ok) throw new Error(`The demo tasting of ${plan.code} can’t be drawn.`);
  return made.value;
}

interface Tasting {
  key: PanelKey;
  extra: { body: EntryBody; at: string }[];
}

/** Three tasters, four contenders, one of them twice; answered and revealed. */
export function finishedTasting(plan: Plan, day: Day, on: number): Tasting {
  const { code } = plan;
  const arm = (key: string) => treatmentId(code, key);
  const arms = ['water', 'palestra', 'duo', 'sarmenta', 'water'].map(arm);
  const { session, key } = drawn(plan, {
    name: 'Tasting at the harvest',
    tasters: ['Loggia', 'Ada', 'B. P.'],
    samples: arms.map((id) => pooled(plan, id)),
    guess: 'same',
    seed: 611,
  });
  const chance = seededRandom(88);
  const truth = new Map([
    [arm('water'), 3.7],
    [arm('palestra'), 3.4],
    [arm('duo'), 3.1],
    [arm('sarmenta'), 2.6],
  ]);
  const likely = new Map([
    [arm('water'), ['mild', 'crisp', 'juicy']],
    [arm('palestra'), ['mild', 'strong']],
    [arm('duo'), ['strong', 'chewy']],
    [arm('sarmenta'), ['strong', 'bitter', 'chewy']],
  ]);
  const treatmentOf = (c: string) => key.samples[key.cups.find((x) => x.code === c)!.sample]!.treatmentId;
  const bodies: EntryBody[] = [{ kind: 'panel', session }];
  session.tasters.forEach((t, taster) => {
    for (const cup of t.sets[0]!.cups) {
      const of = treatmentOf(cup);
      const score = Math.min(5, Math.max(1, Math.round(truth.get(of)! + 0.7 * chance.normal())));
      const words = likely.get(of)!.filter(() => chance.uniform() < 0.55);
      bodies.push({
        ...{ kind: 'panelAnswer', sessionId: session.id, taster, set: 0, code: cup },
        ...{ scores: [score], ranks: [], chosen: null, words, remark: '' },
      });
    }
    const cups = chance.shuffle(t.sets[0]!.cups);
    bodies.push({
      ...{ kind: 'panelGuess', sessionId: session.id, taster, which: [] },
      same: taster === 1 ? twins(t.sets[0]!.cups, treatmentOf) : [cups[0]!, cups[1]!],
    });
  });
  bodies.push({ kind: 'panelReveal', key });
  const minute = (i: number) => `${day(on)}T18:${String(10 + i).padStart(2, '0')}:00Z`;
  return { key, extra: bodies.map((body, i) => ({ body, at: minute(i) })) };
}

/** Two cups of one contender. */
function twins(cups: readonly string[], treatmentOf: (code: string) => string): [string, string] {
  for (const a of cups) for (const b of cups) if (a < b && treatmentOf(a) === treatmentOf(b)) return [a, b];
  throw new Error('No contender is there twice.');
}

/** Drawn and waiting: a leaf of each contender for two tasters. */
export function readyTasting(plan: Plan, day: Day): Tasting {
  const { session, key } = drawn(plan, {
    name: 'A leaf of each',
    tasters: ['Loggia', 'Ada'],
    samples: plan.treatments.map((t) => pooled(plan, t.id)),
    guess: 'none',
    seed: 27,
  });
  return { key, extra: [{ body: { kind: 'panel', session }, at: `${day(0)}T07:30:00Z` }] };
}
