// What Today lists: settled trials without their logs, and the same lines as if every log had been read.
import '../testing/browserGlobals';
import dayjs from 'dayjs';
import fc from 'fast-check';
import { beforeEach, describe, expect, it } from 'vitest';
import type { Entry } from '~core/log/entry';
import type { TrialId } from '~core/model/ids';
import { entry, harvest, plan } from '~core/testing/trial';
import { planSha256 } from '~core/plan/seal';
import { onBench } from '../testing/browserGlobals';
import { bench } from '../store/bench';
import { forget, knownRev } from '../store/trialMemory';
import { appendEntries, createTrial, deleteTrial, tryTrial } from '../store/trials';
import { benchTrials, isSettled, lineOf } from './benchTrials';

onBench('own');
const both = plan({ treatments: ['Water', 'A'] });
const base = {
  ...both,
  startDate: '2026-03-01',
  rounds: [{ ...both.rounds[1]!, traitIds: both.traits.filter((t) => t.id === 'weight').map((t) => t.id) }],
};

async function add(id: string, log: (p: typeof base) => Entry[]) {
  const p = { ...base, id: id as TrialId, question: `Trial ${id}?` };
  await createTrial(p, undefined, log(p));
}
const sealed = (p: typeof base) => entry({ kind: 'seal', planSha256: planSha256(p) }, 'seal', 0);
const finished = (p: typeof base) => [sealed(p), ...harvest({ Water: [50, 51, 52], A: [60, 61, 62] })];

beforeEach(async () => {
  for (const table of (await bench()).tables) await table.clear();
});

describe('trials of the bench', () => {
  it('a settled trial is listed without its log, until it changes', async () => {
    await add('done', finished);
    await add('running', (p) => [sealed(p)]);
    const later = '2027-01-05';
    const first = await benchTrials(later);
    expect((await (await bench()).settled.toArray()).map((s) => s.id)).toContain('done');
    for (const id of ['done', 'running']) forget(id);
    expect(await benchTrials('2027-02-01')).toMatchObject({ lines: first.lines });
    expect(knownRev('done')).toBeUndefined();
    await appendEntries('done', [{ kind: 'note', unitId: null, text: 'Late.' }], {
      at: '2027-02-01T09:00:00Z',
      offsetMin: 0,
    });
    forget('done');
    await benchTrials('2027-02-01');
    expect(knownRev('done')).toBeDefined();
  });

  it('one that came again under its name is read anew', async () => {
    await add('t', finished);
    await benchTrials('2027-01-05');
    await deleteTrial('t');
    await add('t', (p) => [sealed(p)]);
    const { lines } = await benchTrials('2027-01-05');
    const trial = (await tryTrial('t'))!;
    expect(lines).toEqual([lineOf(trial, '2027-01-05')]);
  });

  it('stays as it is on every later day (property)', async () => {
    await add('done', finished);
    await add('sown', (p) => [sealed(p)]);
    await add('planned', () => []);
    const trials = await Promise.all(['done', 'sown', 'planned'].map(async (id) => (await tryTrial(id))!));
    let settled = 0;
    fc.assert(
      fc.property(fc.nat(400), fc.nat(400), fc.nat(2), (on, after, which) => {
        const day = (n: number) => dayjs('2026-03-01').add(n, 'day').format('YYYY-MM-DD');
        const trial = trials[which]!;
        if (!isSettled(trial, day(on))) return;
        settled += 1;
        expect(isSettled(trial, day(on + after))).toBe(true);
        expect(lineOf(trial, day(on + after))).toEqual(lineOf(trial, day(on)));
      }),
    );
    expect(settled).toBeGreaterThan(5);
  });
});
