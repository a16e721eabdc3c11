/** Whether a key goes into a text field or a list, so that shortcuts must leave it alone. */
export function isTyping(event: KeyboardEvent): boolean {
  const target = event.target as HTMLElement | null;
  if (!target) return false;
  return (
    target.isContentEditable ||
    /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName) ||
    target.getAttribute('role') === 'combobox' ||
    target.closest('[role="dialog"], [role="listbox"], [role="menu"]') !== null
  );
}

/** Gives the keyboard back to the pad after a button was pressed: Enter then keeps, it doesn't press again. */
export const backToPad = (): void => (document.activeElement as HTMLElement | null)?.blur();
