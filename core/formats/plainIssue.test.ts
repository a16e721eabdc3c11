import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { plainIssue } from './plainIssue';

const said = (schema: z.ZodType, value: unknown) => plainIssue(schema.safeParse(value).error!.issues[0]!);

describe('what is wrong in a file', () => {
  it.each([
    [z.object({ a: z.string() }), {}, 'it is missing'],
    [z.string(), 3, 'it isn’t a text'],
    [z.number(), 'x', 'it isn’t a figure'],
    [z.array(z.string()), {}, 'it isn’t a list'],
    [z.object({}), null, 'it isn’t a group of values'],
    [z.enum(['a', 'b']), 'c', 'it isn’t one of what it may be'],
    [z.string().max(2), 'abc', 'it is larger than it may be'],
    [z.number().min(2), 1, 'it is smaller than it may be'],
    [z.string().min(1, 'Name the kit.'), '', 'Name the kit.'],
  ] as [z.ZodType, unknown, string][])('%#', (schema, value, words) => {
    expect(said(schema, value)).toBe(words);
  });
});
