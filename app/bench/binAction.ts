import { z } from 'zod';
import { restore } from '../store/bin';

const BinForm = z.object({ intent: z.enum(['delete', 'restore']), id: z.string().min(1) });

/** What a list with Delete and Undo sends. @param remove puts one of its things into the bin */
export async function binAction(data: unknown, remove: (id: string) => Promise<void>): Promise<null> {
  const { intent, id } = BinForm.parse(data);
  await (intent === 'restore' ? restore(id) : remove(id));
  return null;
}
