import type { z } from 'zod';
import type { EntryBody } from '~core/log/entry';
import { packsLeft, stocksLeft, takings } from '~core/mixing/packs';
import { ofKind } from '~core/log/state';
import { batchOf, loggedAmounts, ofAll } from '~core/mixing/batch';
import { bottlesOn, partNames } from '~core/mixing/bottles';
import { givenPlan } from '~core/mixing/givenPlan';
import { leftOf, mostOf } from '~core/mixing/mixesInLog';
import { fromMarks } from '~core/mixing/bucket';
import { applyMatch } from '~core/mixing/matchPlan';
import type { TreatmentId, UnitId } from '~core/model/ids';
import { ok } from '~core/model/result';
import { type Answer, command, done, saves } from '../../form/command';
import { type Refused, refuse } from '../../form/recordForm';
import { announce } from '../../ui/announce';
import { listProducts } from '../../store/products';
import type { Happened } from '../../store/change';
import { appendEntries, savePlan } from '../../store/trials';
import { takeBackCommands } from '../takeBackCommands';
import { undoCommand } from '../undoAction';
import { changeDose } from './doseChange';
import { takenOnBench } from './mixingData';
import { DoseChangeForm, FeedForm, MixForm, PhForm, ReadingForm, ReadingsForm, StockForm } from './logForms';
import { MatchForm, matchOf } from './matchForm';
import { setUpRecord } from './setUpForm';

interface Readings {
  ec: number | null;
  ph: number | null;
  temperature: number | null;
  instrument: string;
}

/** One log line for each figure that was read. */
function readingBodies(
  f: Readings,
  of: { subject: string; unitId: UnitId | null; treatmentId: TreatmentId | null; batch?: string },
): EntryBody[] {
  return (['ec', 'ph', 'temperature'] as const).flatMap((quantity) => {
    const value = f[quantity];
    return value === null
      ? []
      : [{ kind: 'reading', quantity, value, instrument: f.instrument || 'typed', ...of } as const];
  });
}

const nameTaken = () => refuse('batch', 'There is a batch of this name already.');

/** Writes a batch down: worked out from the plan and the log as they are, with what was typed on the card. */
async function mix(
  trialId: string | undefined,
  f: z.output<typeof MixForm>,
  happened?: Happened,
): Promise<Answer> {
  const library = await listProducts();
  const others = (await takenOnBench()).filter((t) => t.id !== trialId);
  const written = await appendEntries<Refused>(
    trialId,
    (trial) => {
      const { state } = trial;
      const plan = givenPlan(state);
      if (ofKind(state, 'mix').some((e) => e.body.batch === f.batch)) return nameTaken();
      const bottle = bottlesOn(trial, f.day, f.anyDay).find((b) => b.key === f.bottle);
      if (!bottle) return refuse('volume', 'This bottle isn’t mixed on that day any more.');
      const direct = bottle.kind === 'direct';
      const bucket = { unit: f.tools.bucketIn ?? ('L' as const), measures: plan.mixing.measures };
      const litres = fromMarks(f.volume, bucket);
      if (!direct && litres === null) return refuse('volume', 'More than 0 L.');
      if (litres !== null && litres > 100_000) return refuse('volume', 'Up to 100,000 L.');
      const products = plan.products.map((p) => library.find((l) => l.id === p.id) ?? p);
      const stocks = stocksLeft(state);
      const batch = batchOf({
        data: {
          plan,
          names: partNames(trial),
          packs: packsLeft(products, [...takings(state), ...others.flatMap((t) => t.takings)]),
          stocks,
          blind: trial.blind,
        },
        bottle,
        tools: f.tools,
        size: direct ? bottle.unitIds.length : litres!,
        fromStock: f.fromStock,
        actual: f.lines.map((l) => l.actual),
      });
      for (const [i, line] of batch.lines.entries()) {
        const at = `lines.${i}.actual`;
        const chosen = f.fromStock[line.product.id];
        const stock = stocks.find((s) => s.batch === (line.stock?.batch ?? chosen));
        if (typeof chosen === 'string' && !stock) return refuse(at, `There is no stock ${chosen}.`);
        if (line.stock && stock && ofAll(batch, line.given) > stock.leftMl + 1e-9) {
          return refuse(at, `Stock ${stock.batch} has only ${Number(stock.leftMl.toFixed(1))} mL left.`);
        }
      }
      const { treatmentId } = bottle;
      const body: EntryBody = {
        kind: 'mix',
        treatmentId,
        batch: f.batch,
        volumeL: direct ? 0 : ofAll(batch, litres!),
        day: f.day,
        amounts: loggedAmounts(batch),
        way: bottle.way ?? null,
        ...(f.tools.scaleStepG !== null && { stepG: f.tools.scaleStepG }),
      };
      const subject = `batch ${f.batch}`;
      return ok([body, ...readingBodies(f, { subject, unitId: null, treatmentId, batch: f.batch })]);
    },
    happened,
  );
  // The card gives way to the batch, and can’t answer itself.
  if (written.ok) announce(`Batch ${f.batch} is in the log.`);
  return done(written, `Batch ${f.batch} is in the log.`);
}

async function makeStock(
  trialId: string | undefined,
  f: z.output<typeof StockForm>,
  happened?: Happened,
): Promise<Answer> {
  const written = await appendEntries<Refused>(
    trialId,
    ({ state }) =>
      ofKind(state, 'stock').some((e) => e.body.batch === f.batch)
        ? nameTaken()
        : ok([
            {
              kind: 'stock' as const,
              productId: f.productId,
              batch: f.batch,
              amount: f.amount,
              unit: f.unit,
              volumeL: f.volumeMl / 1000,
              ...(f.packId && { packId: f.packId }),
            },
          ]),
    happened,
  );
  return done(written, `Stock ${f.batch} is in the log.`);
}

/** Writes down what units were given. No more can be given of a batch than was mixed. */
async function feed(
  trialId: string | undefined,
  f: z.output<typeof FeedForm>,
  happened?: Happened,
): Promise<Answer> {
  const written = await appendEntries<Refused>(
    trialId,
    ({ state }) => {
      if (f.batch !== '') {
        const mixed = ofKind(state, 'mix').find((e) => e.body.batch === f.batch);
        if (!mixed) return refuse('batch', `There is no batch ${f.batch}.`);
        const left = leftOf(state, mixed.body);
        const given = mixed.body.volumeL - left;
        if (f.volume * f.unitIds.length > mostOf(state, mixed.body)) {
          return refuse(
            'volume',
            `Batch ${f.batch} was ${Number(mixed.body.volumeL.toPrecision(3))} L${given > 0 ? `, ${Number(Math.max(0, left).toPrecision(3))} L are left` : ''}: not enough for ${f.unitIds.length} × ${Number(f.volume.toPrecision(3))} L.`,
          );
        }
      }
      return ok([
        {
          kind: 'feed' as const,
          unitIds: f.unitIds,
          batch: f.batch,
          volumeLPerUnit: f.volume,
          purpose: f.purpose,
          ...(f.day !== null && { day: f.day }),
        },
      ]);
    },
    happened,
  );
  return done(written, f.purpose === 'topUp' ? 'The top-up is in the log.' : 'The feeding is in the log.');
}

/** Everything the Mixing room writes: to the log, or (before the seal) to the plan. */
export const mixingCommands = {
  mix: command(MixForm, mix),
  stock: command(StockForm, makeStock),
  feed: command(FeedForm, feed),
  reading: command(ReadingForm, async (trialId, { subject, unitId, treatmentId, ...f }, happened) =>
    done(
      await appendEntries(trialId, readingBodies(f, { subject, unitId, treatmentId }), happened),
      'The reading is in the log.',
    ),
  ),
  readings: command(ReadingsForm, async (trialId, f, happened) => {
    const bodies = f.rows.flatMap(({ subject, unitId, treatmentId, ...row }) =>
      readingBodies({ ...row, instrument: f.instrument }, { subject, unitId, treatmentId }),
    );
    if (bodies.length === 0) return refuse('rows.0.ec', 'Nothing was typed.');
    const of = bodies.length === 1 ? 'reading is' : 'readings are';
    return done(await appendEntries(trialId, bodies, happened), `${bodies.length} ${of} in the log.`);
  }),
  phDose: command(PhForm, async (trialId, { intent: _, subject, ...body }, happened) =>
    done(
      await appendEntries(trialId, [{ kind: 'phDose', batch: '', ...body }], happened),
      `${subject}: the correction is in the log.`,
    ),
  ),
  setUp: saves('plan', setUpRecord, 'The set-up is saved.'),
  match: command(MatchForm, async (trialId, f) =>
    done(await savePlan(trialId, (plan) => applyMatch(plan, matchOf(f))), 'The doses are in the plan.'),
  ),
  doseChange: command(DoseChangeForm, changeDose),
  ...takeBackCommands,
  undo: undoCommand,
};
