import { createContext } from 'react';

/** A day and a time as an action is told them; undefined: now. */
export type When = { date: string; time: string } | undefined;

/** When what the forms within write happened. */
export const Happened = createContext<When>(undefined);
