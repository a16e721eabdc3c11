import { z } from 'zod';

/** What happened, in words. */
export const happened = z.string().trim().min(1, 'Write what happened.').max(2000);
