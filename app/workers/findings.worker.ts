import { expose } from 'comlink';
import { type FindingInput, makeFinding } from '~core/verdict/finding';

/** Rows in, findings out: the worker carries neither the log nor its schemas. */
const api = { findings: (inputs: FindingInput[]) => inputs.map(makeFinding) };

export type FindingsApi = typeof api;
expose(api);
