import type { Result } from '../model/result';
import { type Finding, type FindingError, makeFinding } from './finding';
import type { NameOf } from '../model/nameOf';
import type { NamedInput } from './trialFindings';

/** One finding as a plain row: for files and other programs. */
export interface FindingRow {
  trait: string;
  /** null: the trait's own summary over its rounds */
  round: string | null;
  /** null: all crops of a unit */
  crop: string | null;
  /** id of the method */
  method: string;
  /** on the method's own scale; limits simultaneous, p adjusted, null where nothing was tested */
  versusControl: {
    name: string;
    /** null where one of two rates is nothing */
    difference: number | null;
    low: number | null;
    high: number | null;
    p: number | null;
  }[];
}

const closed = (x: number | null): number | null => (x === null || Number.isFinite(x) ? x : null);

/**
 * Findings as rows; inputs without a finding are left out.
 * @param inputs as `trialFindings` has them
 * @param made their findings, where they are worked out already
 */
export const findingRows = (
  { inputs, nameOf }: { inputs: readonly NamedInput[]; nameOf: NameOf },
  made: readonly Result<Finding, FindingError>[] = inputs.map((i) => makeFinding(i.input)),
): FindingRow[] =>
  inputs.flatMap(({ trait, round, crop }, i): FindingRow[] => {
    const finding = made[i]!;
    if (!finding.ok) return [];
    const { lost, peers, analysis } = finding.value;
    const { method } = analysis;
    const versusControl = peers && lost.length > 0 ? [] : analysis.versusControl;
    return [
      {
        ...{ trait, round, crop, method },
        versusControl: versusControl.map((c) => ({
          name: nameOf(c.a),
          difference: closed(c.estimate),
          low: closed(c.low),
          high: closed(c.high),
          p: c.p,
        })),
      },
    ];
  });
