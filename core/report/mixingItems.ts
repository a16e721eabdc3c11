import { type TrialState, ofKind } from '../log/state';
import { regimenNames } from '../model/plan';
import { formatFigure, formatSigned, listNames, plural } from '../quantity/format';

/** How solutions were mixed and kept, for the review: from the log, not from the plan. */
export function mixingItems(state: TrialState): string[] {
  const { plan } = state;
  const mixes = ofKind(state, 'mix');
  if (mixes.length === 0) return [];
  const errors = mixes.flatMap(({ body }) =>
    body.amounts.flatMap((a) => (a.wanted ? [(100 * (a.amount - a.wanted)) / a.wanted] : [])),
  );
  const steps = [...new Set(mixes.flatMap(({ body }) => (body.stepG === undefined ? [] : [body.stepG])))];
  const worst = errors.reduce((w, e) => (Math.abs(e) > Math.abs(w) ? e : w), 0);
  const batches = `${mixes.length} ${mixes.length === 1 ? 'batch' : plural('batch')}`;
  const means = plan.treatments.flatMap((t) => {
    const read = ofKind(state, 'reading').filter(
      (e) => e.body.quantity === 'ec' && e.body.treatmentId === t.id,
    );
    const mean = read.reduce((s, e) => s + e.body.value, 0) / read.length;
    return read.length > 0 ? [`${t.name} ${formatFigure(mean, 2)}`] : [];
  });
  return [
    `Solutions: ${regimenNames[plan.mixing.regimen]}; ${batches} in the log${
      errors.length > 0
        ? `, what was measured out at most ${formatSigned(worst, 1)} % off what was wanted`
        : ''
    }${steps.length > 0 ? `, weighed in steps of ${listNames(steps.map((s) => `${s} g`))}` : ''}.`,
    ...(means.length > 0 ? [`EC (strength) as read, mean in mS/cm: ${means.join(', ')}.`] : []),
  ];
}
