// Rows of the speed table that need no browser.

import { measureCanopy } from '~core/imaging/canopy';
import { openLogger } from '~core/series/loggerFile';
import { agendaOf } from '~core/schedule/agenda';
import { tasksOf } from '~core/schedule/protocols/tasks';
import { rehearse } from '~core/design/rehearsal';
import { rehearsalInput } from '~core/design/rehearsalInput';
import { seededRandom } from '~core/stats/random';
import { deriveState, extend } from '~core/log/state';
import { vesselsOf } from '~core/mixing/vessels';
import { roundProgress } from '~core/schedule/rounds';
import { planSha256 } from '~core/plan/seal';
import { startR } from '~core/testing/r';
import { entry, heightTrait, height, plan as smallPlan } from '~core/testing/trial';
import { logisticFit } from '~core/stats/curves';
import type { TraitId } from '~core/model/ids';
import { permutationTest } from '~core/stats/permutation';
import { findingOf } from '~core/account/findingInput';
import { report, median } from './rows';
import { largeTrial } from './largeTrial';

/** Our findings against R's analysis of variance and Tukey intervals, on the same values in one run. */
export async function findings() {
  const { plan, log } = largeTrial(1);
  const state = deriveState(plan, log);
  const all = () => plan.traits.map((t) => findingOf(state, t));
  all();
  const times = Array.from({ length: 7 }, () => {
    const from = performance.now();
    all();
    return performance.now() - from;
  });
  const r = await startR();
  const columns = plan.traits.map((t) => {
    const values = plan.units.map((u) => state.byUnitAndTrait.get(`${u.id}/${t.id}`)![0]!.value);
    return `${t.id} = c(${values.join(',')})`;
  });
  await r.numbers(
    `d <- data.frame(arm = factor(c(${plan.units.map((u) => `"${u.treatmentId}"`).join(',')})),
       block = factor(c(${plan.units.map((u) => u.block).join(',')})), ${columns.join(', ')}); 1`,
  );
  const work = `for (y in paste0("t", 0:11)) {
      m <- aov(reformulate(c("block", "arm"), y), d); summary(m); TukeyHSD(m, "arm") }; 1`;
  await r.numbers(work);
  const rTimes: number[] = [];
  for (let i = 0; i < 5; i++) {
    const from = performance.now();
    await r.numbers(work);
    rTimes.push(performance.now() - from);
  }
  const ratio = median(rTimes) / median(times);
  report(
    'findings, 200 units × 12 traits',
    median(times),
    250,
    ` (R in WebAssembly, analysis of variance and Tukey alone: ${median(rTimes).toFixed(0)} ms, ${ratio.toFixed(1)} times ours)`,
  );
}

/** Findings of 200 units by every kind of method: means, k of n, scores, ranks, counts, days until. */
export function kindsOfValue() {
  const names = ['Water', 'A', 'B', 'C', 'D', 'E', 'F', 'G', 'H', 'I'];
  const kinds = ['number', 'number', 'number', 'ratio', 'ratio', 'score', 'score', 'count', 'count', 'time', 'time', 'rank'] as const; // prettier-ignore
  const traits = kinds.map((kind, i) =>
    heightTrait({ id: `k${i}` as TraitId, name: `K${i}`, kind, ...(kind === 'ratio' && { outOf: 8 }) }),
  );
  const made = smallPlan({ treatments: names, replicates: 20, blocked: true, traits });
  const random = seededRandom(2);
  const most = { number: 60, ratio: 8, score: 5, count: 30, time: 20, rank: 200 };
  const log = traits.flatMap((t, i) =>
    made.units.map((u) => {
      const value = Math.max(1, Math.floor(random.uniform() * most[kinds[i]!]));
      const body = { kind: 'measurement' as const, unitId: u.id, traitId: t.id, sample: null, value };
      return entry({ ...body, roundId: 'r2', ...(kinds[i] === 'time' && { notYet: value > 15 }) });
    }),
  );
  const state = deriveState(made, log);
  const all = () => traits.map((t) => findingOf(state, t));
  all();
  const times = Array.from({ length: 5 }, () => {
    const from = performance.now();
    all();
    return performance.now() - from;
  });
  report('findings, 200 units × 12 traits of every kind', median(times), 120);
}

/** Logistic curves of 200 units on eight days. */
export function logistics() {
  const days = [3, 7, 10, 14, 17, 21, 24, 28];
  const random = seededRandom(3);
  const curves = Array.from({ length: 200 }, (_, i) =>
    days.map((time) => ({
      time,
      value: (20 + (i % 7)) / (1 + Math.exp(-0.3 * (time - 12))) + 0.4 * random.normal(),
    })),
  );
  const from = performance.now();
  curves.forEach(logisticFit);
  report('logistic fits of 200 units', performance.now() - from, 200);
}

/** 5,000 simulated trials of 6 treatments × 8 units in blocks with Dunnett, all scenarios at once. */
export function rehearsal() {
  const names = ['Water', 'A', 'B', 'C', 'D', 'E'];
  const input = rehearsalInput(smallPlan({ treatments: names, replicates: 8, blocked: true }), {
    unitCvPercent: 10,
    blockCvPercent: 7,
    gradientPercent: 0,
    plantCvPercent: 10,
    lossPercent: 0,
    runs: 5000,
    seed: 1,
    alpha: 0.05,
  });
  if (!input.ok) throw new Error(input.error.tag);
  const once = (over: object) => {
    const from = performance.now();
    const task = rehearse({ ...input.value, ...over });
    if (!task.ok) throw new Error(task.error.tag);
    while (!task.value.step(100));
    return performance.now() - from;
  };
  report('rehearsal, 5,000 trials of 6 treatments × 8 units', once({}), 500);
  report('the same with six plants in each unit', once({ plants: 6 }), 1000);
}

/** A line appended to a long log: the state after it, with the progress of its rounds, which every screen shows. */
export function append(entries: number, limitMs: number) {
  const { plan, log } = largeTrial(Math.ceil(entries / 2400));
  const kept = log.slice(0, entries);
  let state = deriveState(plan, kept);
  roundProgress(state, '2026-03-02');
  const times = Array.from({ length: 50 }, (_, i) => {
    const unit = plan.units[i % 200]!;
    const line = entry({ ...height(unit.id, 5 + i), traitId: 't1', roundId: 'r0' });
    const from = performance.now();
    state = extend(state, [line]);
    roundProgress(state, '2026-03-02');
    return performance.now() - from;
  });
  report(`an append with derivation at ${entries.toLocaleString('en')} entries`, median(times), limitMs);
}

/** Vessels with their readings and fillings, of 200 units with 10,000 readings and 2,000 feedings. */
export function reservoirs() {
  const { plan } = largeTrial(1);
  const log = plan.units.flatMap((u) => [
    ...Array.from({ length: 50 }, (_, i) =>
      entry({
        kind: 'reading',
        quantity: i % 2 ? 'ec' : 'ph',
        value: 1,
        subject: u.code,
        unitId: u.id,
        treatmentId: u.treatmentId,
        instrument: 'meter',
      }),
    ),
    ...Array.from({ length: 10 }, () =>
      entry({ kind: 'feed', unitIds: [u.id], batch: '', volumeLPerUnit: 1, purpose: 'topUp' }),
    ),
  ]);
  const state = deriveState(plan, log);
  const from = performance.now();
  vesselsOf({ plan, shown: plan, living: plan.units, state });
  report('Reservoirs, 200 vessels, 12,000 lines', performance.now() - from, 100);
}

export function permutations() {
  const values = (n: number, shift: number) => Array.from({ length: n }, (_, i) => ((i * 7) % 11) + shift);
  const time = (n: number) => {
    const from = performance.now();
    const done = permutationTest([{ a: values(n, 1), b: values(n, 0) }])!;
    return [performance.now() - from, done.arrangements] as const;
  };
  const [exact, ways] = time(11);
  report(`exact permutation, ${ways.toLocaleString('en')} arrangements`, exact, 1000);
  report('100,000 random ones on 48 units', time(24)[0], 150);
}

/** Cover of a 12-megapixel picture, a third of it leaves. */
export function cover() {
  const [width, height] = [4000, 3000];
  const chance = seededRandom(3);
  const data = new Uint8ClampedArray(width * height * 4);
  for (let i = 0; i < width * height; i++) {
    const [r, g, b] = i % 3 === 0 ? [70, 140, 50] : [120, 100, 80];
    const noise = chance.uniform() * 12;
    data.set([r! + noise, g! + noise, b! + noise, 255], i * 4);
  }
  const times = Array.from({ length: 5 }, () => {
    const from = performance.now();
    measureCanopy({ width, height, data });
    return performance.now() - from;
  });
  report('canopy cover of a 12-megapixel picture', median(times), 250);
}

/** Half a million rows of a logger with decimal commas, and the longest burst between two reports. */
export function logger() {
  const start = Date.UTC(2025, 0, 1);
  const rows = ['Datum/Uhrzeit;Temp (°C);Feuchte (%)'];
  for (let i = 0; i < 500_000; i++) {
    const at = new Date(start + i * 60_000).toISOString();
    rows.push(
      `${at.slice(8, 10)}.${at.slice(5, 7)}.${at.slice(0, 4)} ${at.slice(11, 16)};${20 + (i % 9)},5;60`,
    );
  }
  const text = rows.join('\n');
  const from = performance.now();
  const reading = openLogger(text);
  if (!reading.ok) throw new Error(reading.error.tag);
  while (!reading.value.step(20_000));
  reading.value.result();
  report('import of 500,000 logger rows', performance.now() - from, 5000);
}

/** What 200 trials of a month ask for today. */
export function agenda() {
  const base = smallPlan({ replicates: 8, traits: [heightTrait()] });
  const plan = { ...base, tasks: tasksOf('shoots-feed') };
  const states = Array.from({ length: 200 }, () =>
    deriveState(plan, [entry({ kind: 'seal', planSha256: planSha256(plan) }, 'seal', 0)]),
  );
  const from = performance.now();
  for (const state of states) agendaOf(state, '2026-03-08', '2026-03-14');
  report('the agenda of 200 trials', performance.now() - from, 300);
}
