import { describe, expect, it } from 'vitest';
import { keyFits } from '~core/design/blinding';
import { audit } from '~core/fairness/audit';
import { auditInput } from '~core/fairness/auditInput';
import { rehearse } from '~core/design/rehearsal';
import { rehearsalInput, rehearsedOf } from '~core/design/rehearsalInput';
import { rightOf } from '~core/design/rehearsalWords';
import { deriveState, ofKind } from '~core/log/state';
import { Product } from '~core/model/product';
import { planSha256 } from '~core/plan/seal';
import { Trial } from '~core/log/trial';
import { roundProgress, stageOf } from '~core/schedule/rounds';
import { LABELS_TASK } from '~core/schedule/tasks';
import { findingOf } from '~core/account/findingInput';
import { claimVerdictNames, judgeClaims } from '~core/verdict/claims';
import { type StandingTrial, standingsOf } from '~core/standings/overTrials';
import { headline } from '~core/say/words';
import { FINISHED_EXAMPLE } from './finishedExample';
import { demoBench } from './demoBench';

const now = new Date('2026-05-04T10:00:00');
const today = '2026-05-04';
const bench = demoBench(now);
const trial = (code: string) => bench.trials.find((t) => t.plan.code === code)!;
const stateOf = (code: string) => deriveState(trial(code).plan, trial(code).log);

function sentence(code: string): string {
  const { plan } = trial(code);
  const primary = plan.traits.find((t) => t.id === plan.primaryTraitId)!;
  const finding = findingOf(stateOf(code), primary);
  if (!finding.ok) throw new Error(finding.error.tag);
  return headline(finding.value, (id) => plan.treatments.find((t) => t.id === id)!.name).text;
}

describe('the demo bench', () => {
  it('is the same at every start, but for its dates', () => {
    expect(demoBench(now)).toEqual(bench);
    const later = demoBench(new Date('2026-09-01T10:00:00'));
    const values = (b: typeof bench) =>
      b.trials.map((t) => t.log.map((e) => ('value' in e ? e.value : e.kind)));
    expect(values(later)).toEqual(values(bench));
  });
  it('holds only what the schemas allow', () => {
    for (const t of bench.trials) expect(Trial.parse(t)).toEqual(t);
    for (const p of bench.products) expect(Product.parse(p)).toEqual(p);
  });
  it('the rehearsal that was kept is what rehearsing finds', () => {
    const [kept] = ofKind(stateOf('COR'), 'rehearsal');
    const { plan } = trial('COR');
    const input = rehearsalInput(plan, {
      ...{ unitCvPercent: 7, blockCvPercent: 4.9, gradientPercent: 0, plantCvPercent: 7, lossPercent: 2 },
      ...{ runs: kept!.body.runs, seed: kept!.body.seed, alpha: 0.05 },
    });
    if (!input.ok) throw new Error(input.error.tag);
    const run = rehearse(input.value);
    if (!run.ok) throw new Error(run.error.tag);
    run.value.step(kept!.body.runs);
    const found = run.value.result();
    expect(kept!.body).toMatchObject({
      of: rehearsedOf(plan),
      falseWinner: found.nothing.plan.falseWinner,
      ...rightOf(found),
    });
  });
  it('seals carry the hash of their plan', () => {
    for (const t of bench.trials) {
      const { seal } = deriveState(t.plan, t.log);
      if (seal) expect(seal.planSha256).toBe(planSha256(t.plan));
    }
  });
  it('has trials in different states', () => {
    const stages = Object.fromEntries(
      bench.trials.map((t) => [t.plan.code, stageOf(deriveState(t.plan, t.log), today)]),
    );
    expect(stages).toEqual({
      COR: 'finished',
      PAR: 'running',
      FAG: 'finished',
      SUN: 'finished',
      POM: 'running',
      RAD: 'planning',
      BAS: 'finished',
      LAT: 'finished',
      RUC: 'finished',
      RUD: 'finished',
    });
  });
  it('has a blind trial whose codes aren’t opened, with a key that fits', () => {
    const { plan, key } = trial('FAG');
    expect(plan.blinding).toBe('scorer');
    expect(stateOf('FAG').revealed).toBeNull();
    expect(keyFits(key!, plan)).toBe(true);
  });
  it('has a clean plan and one with faults to find', () => {
    const rulesOf = (code: string) => {
      const { plan, review } = trial(code);
      const labelsPrinted = stateOf(code).tasksDone.has(LABELS_TASK);
      const input = { plan, labelsPrinted, disclosure: review.disclosure, me: '', ecByTreatment: new Map() };
      return audit(input).map((f) => f.ruleId);
    };
    expect(rulesOf('COR')).toEqual([]);
    expect(trial('COR').plan.id).toBe(FINISHED_EXAMPLE);
    const breaking = ['BAS', 'LAT', 'RUC', 'RUD'].flatMap((code) =>
      audit(auditInput(trial(code), stateOf(code))).filter((f) => f.severity === 'breaks'),
    );
    expect(breaking).toEqual([]);
    expect(rulesOf('RAD')).toEqual(
      expect.arrayContaining([
        'additive-without-base',
        'whole-lines',
        'gradient-unbalanced',
        'dose-error',
        'two-questions',
      ]),
    );
    expect(rulesOf('RAD').length).toBeGreaterThan(12);
  });
  it('has a round due today, begun', () => {
    const due = roundProgress(stateOf('PAR'), today).filter(
      (r) => r.status === 'due' || r.status === 'overdue',
    );
    expect(due).toMatchObject([{ status: 'due', date: today, unitsDone: 7, unitsWanted: 20, started: true }]);
  });
  it('has five trials whose weights can be pooled, one of them without water', () => {
    const pooled = ['COR', 'BAS', 'LAT', 'RUC', 'RUD', 'SUN'].map((code): StandingTrial => {
      const { plan } = trial(code);
      const finding = findingOf(stateOf(code), plan.traits[0]!);
      if (!finding.ok) throw new Error(finding.error.tag);
      return { id: plan.id, title: code, crop: plan.crop, plan, finding: finding.value, faults: [] };
    });
    const standings = standingsOf(pooled);
    // The sixth has no spread in one of its contenders: it is named, not pooled.
    expect(standings.notPooled.map((t) => t.title)).toEqual(['SUN']);
    expect(standings.pooled).toHaveLength(5);
    expect(standings.meta!.products.map((p) => p.name).sort()).toEqual([
      'Duo Lume',
      'Ombretta Bio',
      'Palestra Liquida',
      'Sarmenta Fine',
      'nothing added',
    ]);
    expect(standings.split.length).toBeGreaterThan(0);
  });
  it('has claims of every outcome', () => {
    const { plan, review } = trial('COR');
    const made = plan.traits.flatMap((t) => {
      const finding = findingOf(stateOf('COR'), t);
      return finding.ok ? [finding.value] : [];
    });
    const judged = judgeClaims(plan, review.claims ?? [], made, (id) => id);
    expect(new Set(judged.map((c) => c.verdict))).toEqual(new Set(Object.keys(claimVerdictNames)));
  });
  it('has a clear result and an open one', () => {
    expect(sentence('COR')).toBe('Two of three contenders beat Water; nothing separates the two.');
    expect(sentence('SUN')).toMatch(/clearly better|close to call/);
  });
});
