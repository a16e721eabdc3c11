/** A button that stays in the background of a ledger row. */
export const quietButton = { color: 'text.secondary', fontWeight: 400 } as const;
