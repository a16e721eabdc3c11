import type { z } from 'zod';

/**
 * What is wrong with a value of a file, in plain words; messages that are written for a field stay as they are.
 * @example plainIssue({ code: 'invalid_type', expected: 'string', input: undefined, path: [], message: 'Invalid input: received undefined' }) // 'it is missing'
 */
export function plainIssue(issue: z.core.$ZodIssue): string {
  if (!/^(Invalid|Too |Unrecognized)/.test(issue.message)) return issue.message;
  switch (issue.code) {
    case 'invalid_type':
      return /received undefined/.test(issue.message)
        ? 'it is missing'
        : `it isn’t ${kinds[issue.expected] ?? 'what it should be'}`;
    case 'too_big':
      return 'it is larger than it may be';
    case 'too_small':
      return 'it is smaller than it may be';
    default:
      return 'it isn’t one of what it may be';
  }
}

const kinds: Record<string, string> = {
  string: 'a text',
  number: 'a figure',
  int: 'a whole figure',
  boolean: 'yes or no',
  array: 'a list',
  object: 'a group of values',
  record: 'a group of values',
};
