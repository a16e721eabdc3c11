import { z } from 'zod';
import { type Observation, type TrialState, observationsOf } from '~core/log/state';
import { type BodyOf, type Entry, EntryBody } from '~core/log/entry';
import { type Result, ok } from '~core/model/result';
import { type Answer, type Done, command, done } from '../form/command';
import { type Refused, refuse } from '../form/recordForm';
import { weighing, withLoad } from '~core/log/kinds/weighing';
import { taskSkipped } from '~core/log/kinds/taskSkipped';
import { roundTask } from '~core/schedule/rounds';
import { type Happened, type Saying, takenBack } from '../store/change';
import { extraUnitOf } from '~core/design/extraUnitOf';
import { type AreaId, EntryId, RoundId, TraitId, TreatmentId, UnitId } from '~core/model/ids';
import { newId } from '~core/model/newId';
import { toldApart } from '~core/log/kinds/toldApart';
import { MOST_PASTED } from '~core/log/pasted';
import { tellApart } from '~core/log/tellApart';
import { type ChangeError, sayStorageFault } from '../store/errors';
import { appendEntries, loadTrial } from '../store/trials';
import { NOT_STORED } from '../form/guarded';
import { nextFrame } from '../ui/nextFrame';

/** The value that a new one of the same unit, trait, round and sample puts right. */
function valueInPlace(state: TrialState, body: EntryBody): Observation | undefined {
  if ((body.kind !== 'measurement' && body.kind !== 'weighing') || body.roundId === null) return undefined;
  return observationsOf(state, body.unitId, body.traitId, body.roundId).findLast(
    (o) => o.sample === body.sample,
  );
}

/** Whether a new value says the same as the one that stands: nothing is corrected then. */
function saysTheSame(old: Observation, body: EntryBody): boolean {
  if (body.kind === 'measurement') {
    return (
      old.weighing === null &&
      old.value === body.value &&
      old.notYet === (body.notYet === true) &&
      old.outOf === (body.outOf ?? null) &&
      (old.borderline ?? 0) === (body.borderline ?? 0) &&
      (old.offType ?? 0) === (body.offType ?? 0)
    );
  }
  return (
    body.kind === 'weighing' &&
    old.weighing !== null &&
    old.weighing.grossG === body.grossG &&
    old.weighing.tareG === body.tareG
  );
}

/** The line for a value: a correction of the one that stands in its place, nothing where it says the same. */
function lineFor(state: TrialState, body: EntryBody): Saying[] {
  const old = valueInPlace(state, body);
  if (!old) return [body];
  if (saysTheSame(old, body)) return [];
  return [{ kind: 'correction', supersedes: old.standsFrom, replacement: body, reason: 'entered again' }];
}

/** The line for another load of a unit: what stands, put right by both together. */
function lineForLoad(state: TrialState, load: BodyOf<'weighing'>): Saying[] {
  const old = valueInPlace(state, load);
  if (!old?.weighing) return lineFor(state, load);
  const replacement = withLoad(old.weighing, load);
  return [{ kind: 'correction', supersedes: old.standsFrom, replacement, reason: 'another load, added' }];
}

/** Lines that no tile shows: that they are kept is said. */
const spoken: ReadonlySet<string> = new Set([
  'deviation',
  'replacement',
  'mixedUp',
  'spot',
  'note',
  'death',
  'exclusion',
]);

/** What wasn't stored, by unit and value: the pad has gone on to the next. */
async function nameOf(trialId: string | undefined, body: EntryBody): Promise<string> {
  if (!('unitId' in body)) return '';
  const { state } = await loadTrial(trialId);
  const code = state.plan.units.find((u) => u.id === body.unitId)?.code;
  const value =
    'value' in body
      ? ` ${body.value}`
      : 'grossG' in body
        ? ` ${body.grossG} g`
        : 'text' in body
          ? ` “${body.text}”`
          : '';
  return code ? `${code}${value}. ` : '';
}

/**
 * Writes one line. A value for a place that has one already becomes a correction of the line it stands from, so the old
 * value stays visible.
 */
async function writeLine(
  trialId: string | undefined,
  { body }: { body: EntryBody },
  happened?: Happened,
): Promise<Answer> {
  if (body.kind === 'weighing' && body.grossG < body.tareG)
    return refuse('grossG', `Gross ${body.grossG} g is less than the tare of ${body.tareG} g.`);
  let written: Result<Entry[], ChangeError>;
  try {
    written = await appendEntries(trialId, ({ state }) => lineFor(state, body), happened);
  } catch (fault) {
    return refuse(NOT_STORED, `${await nameOf(trialId, body)}${sayStorageFault(fault)}`);
  }
  // That it is kept is painted before the screen is worked out anew.
  if (written.ok) await nextFrame();
  if (!written.ok) return written;
  return ok(
    written.value[0]?.kind === 'correction'
      ? { message: 'Corrected; the old value stays in the log.' }
      : spoken.has(body.kind)
        ? { message: 'Written into the log.' }
        : {},
  );
}

/** What came of several lines written together. */
function sayLines(bodies: readonly EntryBody[], written: readonly Entry[]): Done {
  const [first] = bodies;
  if (first!.kind !== 'measurement')
    return spoken.has(first!.kind) ? { message: 'Written into the log.' } : {};
  const corrected = written.filter((e) => e.kind === 'correction').length;
  return {
    message: `${bodies.length} ${bodies.length === 1 ? 'value is' : 'values are'} in the log${corrected > 0 ? `, ${corrected} of them corrected; the old ones stay visible` : ''}.`,
  };
}

/** What Rounds and Weigh-in write into the log. */
export const logCommands = {
  body: command(z.object({ body: EntryBody }), writeLine),
  /** another load of a unit that was weighed in this round */
  load: command(z.object({ load: weighing.body }), async (trialId, { load }, happened) =>
    load.grossG < load.tareG
      ? refuse('grossG', `Gross ${load.grossG} g is less than the tare of ${load.tareG} g.`)
      : done(
          await appendEntries(trialId, ({ state }) => lineForLoad(state, load), happened),
          'Added; each load stays in the log.',
        ),
  ),
  /** several things together: all of them, or none */
  bodies: command(
    z.object({ bodies: z.array(EntryBody).min(1).max(MOST_PASTED) }),
    async (trialId, { bodies }, happened) => {
      const written = await appendEntries(
        trialId,
        ({ state }) => bodies.flatMap((body) => lineFor(state, body)),
        happened,
      );
      return written.ok ? ok(sayLines(bodies, written.value)) : written;
    },
  ),
  /** all units of a trait put in order at once */
  order: command(
    z.object({
      order: z.object({
        traitId: TraitId,
        roundId: RoundId,
        sample: z.number().int().min(1).nullable(),
        ranks: z.array(z.object({ unitId: UnitId, rank: z.number().min(1) })).min(1),
      }),
    }),
    async (trialId, { order: { traitId, roundId, sample, ranks } }, happened) =>
      done(
        await appendEntries(
          trialId,
          ({ state }) =>
            ranks.flatMap(({ unitId, rank }) =>
              lineFor(state, { kind: 'measurement', unitId, traitId, roundId, sample, value: rank }),
            ),
          happened,
        ),
        (lines) => (lines.length === 0 ? 'Nothing changed.' : 'The order is kept.'),
      ),
  ),
  /** a unit more than planned: its code and position are worked out from the trial as it is stored */
  extraUnit: command(
    z.object({
      extraUnit: z.object({ treatmentId: TreatmentId, reason: z.string().trim().max(500) }),
    }),
    async (trialId, { extraUnit }, happened) => {
      const ids = { unit: newId<UnitId>(), area: newId<AreaId>() };
      return done(
        await appendEntries(trialId, ({ state }) => [extraUnitOf(state, extraUnit, ids)], happened),
        'Written into the log.',
      );
    },
  ),
  /** nothing more comes of a round, and why */
  close: command(
    z.object({ close: z.object({ roundId: RoundId, reason: taskSkipped.body.shape.reason }) }),
    async (trialId, { close: { roundId, reason } }) => {
      const written = await appendEntries<Refused>(trialId, ({ state }) => {
        const round = state.plan.rounds.find((r) => r.id === roundId);
        return round
          ? ok([{ kind: 'taskSkipped', task: roundTask(round), reason }])
          : refuse('close', 'There is no such round.');
      });
      return done(written, 'Closed, and written into the log.');
    },
  ),
  reopen: command(z.object({ reopen: EntryId }), async (trialId, { reopen }) =>
    done(
      await appendEntries(trialId, [takenBack(reopen, 'made after all')]),
      'Open again; the log keeps both.',
    ),
  ),
  /** units whose labels were lost, told apart */
  tellApart: command(
    z.object({ tellApart: toldApart.body.omit({ kind: true }) }),
    async (trialId, { tellApart: { mixedUpId, as, how } }) =>
      done(await appendEntries(trialId, ({ state }) => tellApart(state, mixedUpId, as, how)), (lines) => {
        const moved = lines.length - 1;
        return moved > 0
          ? `Told apart; ${moved} ${moved === 1 ? 'line goes' : 'lines go'} to the right one, the log keeps both.`
          : 'Told apart, and written into the log.';
      }),
  ),
};
