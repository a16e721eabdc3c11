import {
  type DiscriminationKind,
  discriminationKinds,
  discriminationTest,
} from '~core/sensory/discriminationTest';
import { describeOrderError, servingOrder } from '~core/sensory/servingOrder';
import { readArgs, requiredNumber, shareOption } from './options';
import { PlainError } from './plainError';

export const panelUsage = `palazzo panel test --kind triangle|duo-trio|pairs --right K --of N [--alpha 0.05] [--json]
palazzo panel order --samples A,B,C,D --tasters N [--seed 1] [--json]`;

const isKind = (text: string): text is DiscriminationKind => Object.hasOwn(discriminationKinds, text);

function test(args: string[]): string {
  const { values } = readArgs(args, {
    kind: { type: 'string' },
    right: { type: 'string' },
    of: { type: 'string' },
    alpha: { type: 'string', default: '0.05' },
    json: { type: 'boolean', default: false },
  });
  const kinds = Object.keys(discriminationKinds).join(', ');
  if (values.kind === undefined) throw new PlainError(`--kind is missing; it is one of ${kinds}.`);
  if (!isKind(values.kind)) throw new PlainError(`--kind must be one of ${kinds}, not “${values.kind}”.`);
  const of = requiredNumber('of', values.of, { low: 1, high: 1_000_000, whole: true });
  const right = requiredNumber('right', values.right, { low: 0, high: of, whole: true });
  const alpha = shareOption('alpha', values.alpha);
  const test = discriminationTest(values.kind, right, of, alpha);
  if (values.json)
    return JSON.stringify({ p: test.p, critical: test.critical, right: test.right, of: test.of });
  const { name, source } = discriminationKinds[values.kind];
  return [
    `${name} (${source}): ${right} of ${of}, p ${test.p < 0.001 ? '< 0.001' : `= ${test.p.toFixed(3)}`}`,
    test.critical === null
      ? `not even ${of} of ${of} would do at ${alpha}`
      : `at least ${test.critical} of ${of} are wanted at ${alpha}`,
  ].join('\n');
}

function order(args: string[]): string {
  const { values } = readArgs(args, {
    samples: { type: 'string' },
    tasters: { type: 'string' },
    seed: { type: 'string', default: '1' },
    json: { type: 'boolean', default: false },
  });
  if (values.samples === undefined) throw new PlainError('--samples is missing.');
  const samples = values.samples.split(',').map((s) => s.trim());
  if (samples.includes('')) throw new PlainError('--samples has an empty name.');
  const tasters = requiredNumber('tasters', values.tasters, { low: 1, high: 450, whole: true });
  const seed = requiredNumber('seed', values.seed, { low: 0, high: 2 ** 32 - 1, whole: true });
  const order = servingOrder(samples, tasters, seed);
  if (!order.ok) throw new PlainError(describeOrderError(order.error));
  if (values.json) return JSON.stringify({ tasters: order.value });
  return order.value
    .map(
      ({ taster, serve }) =>
        `taster ${taster}: ${serve.map(({ sample, code }) => `${code} (${sample})`).join(', ')}`,
    )
    .join('\n');
}

/** Runs `panel` and returns what goes to stdout. */
export function panel([what, ...args]: string[]): string {
  if (what === 'test') return test(args);
  if (what === 'order') return order(args);
  throw new PlainError('Say what of the panel: `panel test` or `panel order`.');
}
