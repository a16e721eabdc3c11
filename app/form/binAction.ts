import { z } from 'zod';
import { ok } from '~core/model/result';
import { command } from './command';
import { restore } from '../store/bin';

const One = z.object({ id: z.string().min(1) });

/** Brings a thing back from the bin. */
export const restoreCommand = command(One, async (_, { id }) => {
  await restore(id);
  return ok({});
});

/** What a list with Delete and Undo sends. @param remove puts one of its things into the bin */
export const binCommands = (remove: (id: string) => Promise<void>) => ({
  delete: command(One, async (_, { id }) => {
    await remove(id);
    return ok({});
  }),
  restore: restoreCommand,
});
