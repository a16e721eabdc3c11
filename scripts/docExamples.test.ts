// What doc comments in core show as `@example call // result` is run. Examples in words, or about a plan that
// isn't written out, are for reading; those that can be run must be right.
import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import ts from 'typescript';
import { describe, expect, it } from 'vitest';

const modules = import.meta.glob<Record<string, unknown>>([
  '../core/**/*.ts',
  '!../core/**/*.test.ts',
  '!../core/testing/**',
]);

/** `@example` texts of a file, over as many lines as they take. */
function examplesIn(source: string): string[] {
  return [...source.matchAll(/\/\*\*[\s\S]*?\*\//g)].flatMap(([comment]) => {
    const text = comment.replace(/^\/\*\*|\*\/$/g, '').replace(/^\s*\* ?/gm, '');
    return text
      .split(/(?=@\w)/)
      .filter((part) => part.startsWith('@example'))
      .map((part) => part.slice('@example'.length).trim());
  });
}

/** Evaluates TypeScript with the exports of a module in scope. Null where it isn't code, or about something else. */
function evaluate(code: string, scope: Record<string, unknown>): { value: unknown } | null {
  const { outputText, diagnostics } = ts.transpileModule(`return (${code.replace(/;$/, '')});`, {
    reportDiagnostics: true,
    compilerOptions: { target: ts.ScriptTarget.ES2023 },
  });
  if (diagnostics?.some((d) => d.category === ts.DiagnosticCategory.Error && d.code !== 1108)) return null;
  try {
    return { value: new Function(...Object.keys(scope), outputText)(...Object.values(scope)) as unknown };
  } catch (e) {
    if (e instanceof ReferenceError || e instanceof SyntaxError) return null;
    throw e;
  }
}

interface Runnable {
  call: string;
  result: unknown;
  said: string;
  expected: unknown;
}

function runnable(example: string, scope: Record<string, unknown>): Runnable | null {
  const cut = /^([\s\S]*?)\s*\/\/ ([\s\S]*)$/.exec(example.replace(/\n\/\/ /g, ' // '));
  if (!cut) return null;
  const [, call, said] = cut as unknown as [string, string, string];
  // The result may be explained after it.
  const literal = /^(-?\d[\d.]*\d|\d|'[^']*'|true|false|null|[[{][\s\S]*[\]}])/.exec(said)?.[1];
  if (literal === undefined || literal.includes('…')) return null;
  const [result, expected] = [evaluate(call, scope), evaluate(literal, scope)];
  return result && expected && { call, said, result: result.value, expected: expected.value };
}

/** Both with numbers cut to the decimals that the example shows. */
function matches(result: unknown, expected: unknown, said: string): boolean {
  if (typeof expected === 'number' && typeof result === 'number') {
    const decimals = /\.(\d+)/.exec(said)?.[1]?.length ?? 0;
    return Math.abs(result - expected) <= 0.5 * 10 ** -decimals + 1e-12;
  }
  if (typeof expected === 'object' && expected !== null && typeof result === 'object' && result !== null) {
    const keys = Object.keys(expected);
    return keys.every((k) =>
      matches(
        (result as Record<string, unknown>)[k],
        (expected as Record<string, unknown>)[k],
        String((expected as Record<string, unknown>)[k]),
      ),
    );
  }
  return result === expected;
}

const found: (Runnable & { file: string })[] = [];
for (const [file, load] of Object.entries(modules)) {
  const path = fileURLToPath(new URL(file, import.meta.url));
  const examples = examplesIn(readFileSync(path, 'utf8'));
  if (examples.length === 0) continue;
  const scope = { ...(await load()) };
  for (const example of examples) {
    const one = runnable(example, scope);
    if (one) found.push({ ...one, file: file.slice(3) });
  }
}

describe('examples in doc comments', () => {
  it.each(found)('$file: $call', ({ result, expected, said }) => {
    expect(matches(result, expected, said), `${JSON.stringify(result)} is said to be ${said}`).toBe(true);
  });
  it('are mostly run', () => {
    expect(found.length).toBeGreaterThan(35);
  });
  it('would be found wrong', () => {
    expect(matches(2.51, 2.5, '2.50')).toBe(false);
    expect(matches({ a: 1 }, { a: 2 }, '')).toBe(false);
    expect(matches('83', 83, '83')).toBe(false);
  });
});
