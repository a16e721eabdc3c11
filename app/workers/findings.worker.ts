import { expose } from 'comlink';
import { type FactorialFinding, factorialFindings } from '~core/looks/factorialFinding';
import { type FigureRegion, inFigures } from '~core/quantity/region';
import { type FindingInput, makeFinding } from '~core/account/finding';
import { type SecondLooks, secondLooks } from '~core/looks/secondLooks';

/** Rows in, findings out: the worker carries neither the log nor its schemas. */
const api = {
  /** @param region how figures are written in what is said of the methods */
  findings: (inputs: FindingInput[], region: FigureRegion) =>
    inFigures(region, () => inputs.map(makeFinding)),
  /** A finding looked at otherwise, and what factors, settings and crops have to do with it; null without a finding. */
  looks: (
    input: FindingInput,
    region: FigureRegion,
  ): { looks: SecondLooks; factorials: FactorialFinding[] } | null =>
    inFigures(region, () => {
      const made = makeFinding(input);
      if (!made.ok) return null;
      return { looks: secondLooks(input, made.value), factorials: factorialFindings(input) };
    }),
};

export type FindingsApi = typeof api;
expose(api);
