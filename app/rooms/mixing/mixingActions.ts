import { z } from 'zod';
import type { EntryBody } from '~core/log/entry';
import { packsLeft, stocksLeft } from '~core/log/packs';
import { ofKind } from '~core/log/state';
import { batchOf, loggedAmounts, ofAll } from '~core/mixing/batch';
import { bottlesOn, partNames } from '~core/mixing/bottles';
import { givenPlan } from '~core/mixing/givenPlan';
import { fromMarks } from '~core/mixing/bucket';
import { applyMatch } from '~core/mixing/matchPlan';
import { EntryId } from '~core/model/ids';
import type { TreatmentId, UnitId } from '~core/model/ids';
import { ok } from '~core/model/result';
import { type MergeError, SentForm, mergedValues, refusal } from '../../form/mergedForm';
import { listProducts } from '../../store/products';
import { appendEntries, listTrials, savePlan } from '../../store/trials';
import { undoAction } from '../undoAction';
import { type ActionResult, fieldErrors } from '../../form/schemaFields';
import { changeDose } from './doseChange';
import { DoseChangeForm, FeedForm, MixForm, PhForm, ReadingForm, ReadingsForm, StockForm } from './logForms';
import { type Said, answer, said } from './said';
import { MatchForm, matchOf } from './matchForm';
import { SetUpForm, applySetUp, toSetUpForm } from './setUpForm';

const TakeBack = z.object({ intent: z.literal('takeBack'), ids: z.array(EntryId).min(1) });
const BringBack = z.object({ intent: z.literal('bringBack'), ids: z.array(EntryId).min(1) });
const Undo = z.object({ intent: z.literal('undo') });
const Intent = z.object({
  intent: z.enum([
    'mix',
    'stock',
    'feed',
    'reading',
    'readings',
    'phDose',
    'setUp',
    'match',
    'doseChange',
    'takeBack',
    'bringBack',
    'undo',
  ]),
});
const schemas = {
  mix: MixForm,
  stock: StockForm,
  feed: FeedForm,
  reading: ReadingForm,
  readings: ReadingsForm,
  phDose: PhForm,
  setUp: SetUpForm,
  match: MatchForm,
  doseChange: DoseChangeForm,
  takeBack: TakeBack,
  bringBack: BringBack,
  undo: Undo,
} as const;

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

const taken = () => said('batch', 'There is a batch of this name already.');

/** Writes a batch down: worked out from the plan and the log as they are, with what was typed on the card. */
async function mix(trialId: string | undefined, f: z.output<typeof MixForm>): Promise<ActionResult> {
  const library = await listProducts();
  const others = (await listTrials()).filter((t) => t.row.id !== trialId).map((t) => t.state);
  const done = await appendEntries<Said>(trialId, (trial) => {
    const { state } = trial;
    const plan = givenPlan(state);
    if (ofKind(state, 'mix').some((e) => e.body.batch === f.batch)) return taken();
    const bottle = bottlesOn(trial, f.day, f.anyDay).find((b) => b.key === f.bottle);
    if (!bottle) return said('volume', 'This bottle isn’t mixed on that day any more.');
    const direct = bottle.kind === 'direct';
    const bucket = { unit: f.tools.bucketIn ?? ('L' as const), measures: plan.mixing.measures };
    const litres = fromMarks(f.volume, bucket);
    if (!direct && litres === null) return said('volume', 'More than 0 L.');
    if (litres !== null && litres > 100_000) return said('volume', 'Up to 100,000 L.');
    const products = plan.products.map((p) => library.find((l) => l.id === p.id) ?? p);
    const stocks = stocksLeft(state);
    const batch = batchOf({
      data: {
        plan,
        names: partNames(trial),
        packs: packsLeft(products, [state, ...others]),
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
      if (typeof chosen === 'string' && !stock) return said(at, `There is no stock ${chosen}.`);
      if (line.stock && stock && ofAll(batch, line.given) > stock.leftMl + 1e-9) {
        return said(at, `Stock ${stock.batch} has only ${Number(stock.leftMl.toFixed(1))} mL left.`);
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
      ...(f.tools.scaleStepG !== null && { stepG: f.tools.scaleStepG }),
    };
    const subject = `batch ${f.batch}`;
    return ok([body, ...readingBodies(f, { subject, unitId: null, treatmentId, batch: f.batch })]);
  });
  return done.ok ? { saved: true, message: `Batch ${f.batch} is in the log.` } : answer(done.error);
}

async function makeStock(trialId: string | undefined, f: z.output<typeof StockForm>): Promise<ActionResult> {
  const done = await appendEntries<Said>(trialId, ({ state }) =>
    ofKind(state, 'stock').some((e) => e.body.batch === f.batch)
      ? taken()
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
  );
  return done.ok ? { saved: true, message: `Stock ${f.batch} is in the log.` } : answer(done.error);
}

/** Writes down what units were given. No more can be given of a batch than was mixed. */
async function feed(trialId: string | undefined, f: z.output<typeof FeedForm>): Promise<ActionResult> {
  const done = await appendEntries<Said>(trialId, ({ state }) => {
    if (f.batch !== '') {
      const mixed = ofKind(state, 'mix').find((e) => e.body.batch === f.batch);
      if (!mixed) return said('batch', `There is no batch ${f.batch}.`);
      const given = ofKind(state, 'feed')
        .filter((e) => e.body.batch === f.batch)
        .reduce((s, e) => s + e.body.volumeLPerUnit * e.body.unitIds.length, 0);
      const left = mixed.body.volumeL - given;
      // A tenth more than was measured is the bucket's error, not a mistake (practice).
      if (f.volume * f.unitIds.length > left + 0.1 * mixed.body.volumeL) {
        return said(
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
  });
  if (!done.ok) return answer(done.error);
  return {
    saved: true,
    message: f.purpose === 'topUp' ? 'The top-up is in the log.' : 'The feeding is in the log.',
  };
}

/** Writes lines that can't be refused but for the trial itself. */
async function write(
  trialId: string | undefined,
  message: string,
  say: Parameters<typeof appendEntries<never>>[1],
): Promise<ActionResult> {
  const done = await appendEntries<never>(trialId, say);
  return done.ok ? { saved: true, message } : answer(done.error);
}

async function saveSetUp(trialId: string | undefined, sent: SentForm): Promise<ActionResult> {
  const saved = await savePlan<MergeError>(trialId, (plan) => {
    const values = mergedValues(sent, toSetUpForm(plan), SetUpForm);
    return values.ok ? ok(applySetUp(plan, values.value)) : values;
  });
  return saved.ok
    ? { saved: true, message: 'The set-up is saved.', now: toSetUpForm(saved.value.trial.row.plan) }
    : refusal(saved.error, 'regimen');
}

/** Everything the Mixing room writes: to the log, or (before the seal) to the plan. */
export async function mixingAction(trialId: string | undefined, data: unknown): Promise<ActionResult> {
  const sent = SentForm.safeParse(data);
  if (sent.success && sent.data.values !== undefined) return saveSetUp(trialId, sent.data);
  const intent = Intent.safeParse(data);
  if (!intent.success) return { errors: { intent: 'There is no such thing to do here.' } };
  const parsed = schemas[intent.data.intent].safeParse(data);
  if (!parsed.success) return { errors: fieldErrors(parsed.error) };
  const f = parsed.data;
  switch (f.intent) {
    case 'mix':
      return mix(trialId, f);
    case 'stock':
      return makeStock(trialId, f);
    case 'feed':
      return feed(trialId, f);
    case 'reading':
      return write(
        trialId,
        'The reading is in the log.',
        readingBodies(f, { subject: f.subject, unitId: f.unitId, treatmentId: f.treatmentId }),
      );
    case 'readings': {
      const bodies = f.rows.flatMap(({ subject, unitId, treatmentId, ...row }) =>
        readingBodies({ ...row, instrument: f.instrument }, { subject, unitId, treatmentId }),
      );
      if (bodies.length === 0) return { errors: { 'rows.0.ec': 'Nothing was typed.' } };
      return write(
        trialId,
        `${bodies.length} ${bodies.length === 1 ? 'reading is' : 'readings are'} in the log.`,
        bodies,
      );
    }
    case 'phDose': {
      const { intent: _, subject, ...body } = f;
      return write(trialId, `${subject}: the correction is in the log.`, [
        { kind: 'phDose', batch: '', ...body },
      ]);
    }
    case 'doseChange':
      return changeDose(trialId, f);
    case 'takeBack':
      return write(
        trialId,
        'Taken back; the lines stay visible in the log.',
        f.ids.map((supersedes) => ({
          kind: 'correction',
          supersedes,
          replacement: null,
          reason: 'taken back',
        })),
      );
    case 'bringBack':
      // A line stands again when the correction that took it back is itself taken back.
      return write(trialId, 'It stands again.', ({ log }) =>
        f.ids.flatMap((id) => {
          const back = log.findLast((e) => e.kind === 'correction' && e.supersedes === id && !e.replacement);
          return back
            ? [
                {
                  kind: 'correction',
                  supersedes: back.id,
                  replacement: null,
                  reason: 'brought back',
                } as const,
              ]
            : [];
        }),
      );
    case 'undo':
      return undoAction(trialId);
    case 'setUp':
      return saveSetUp(trialId, { base: undefined, values: data });
    case 'match': {
      const saved = await savePlan(trialId, (plan) => applyMatch(plan, matchOf(f)));
      return saved.ok ? { saved: true, message: 'The doses are in the plan.' } : answer(saved.error);
    }
  }
}
