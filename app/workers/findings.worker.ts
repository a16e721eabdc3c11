import { expose } from 'comlink';
import { type FactorialFinding, factorialFindings } from '~core/verdict/factorialFinding';
import { type FindingInput, makeFinding } from '~core/verdict/finding';
import { type SecondLooks, secondLooks } from '~core/verdict/secondLooks';

/** Rows in, findings out: the worker carries neither the log nor its schemas. */
const api = {
  findings: (inputs: FindingInput[]) => inputs.map(makeFinding),
  /** A finding looked at otherwise, and what factors, settings and crops have to do with it; null without a finding. */
  looks: (input: FindingInput): { looks: SecondLooks; factorials: FactorialFinding[] } | null => {
    const made = makeFinding(input);
    if (!made.ok) return null;
    return { looks: secondLooks(input, made.value), factorials: factorialFindings(input) };
  },
};

export type FindingsApi = typeof api;
expose(api);
