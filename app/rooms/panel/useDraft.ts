import { useState } from 'react';

const keyOf = (name: string) => `palazzo/taster/${name}`;

function stored<T>(name: string): T | null {
  try {
    return JSON.parse(sessionStorage.getItem(keyOf(name)) ?? 'null') as T | null;
  } catch {
    return null;
  }
}

/** What is being answered on a screen; it stays through a reload and a failed keeping, as long as the tab is open. */
export function useDraft<T>(name: string, start: T): { value: T; put: (value: T) => void } {
  const [value, setValue] = useState<T>(() => stored<T>(name) ?? start);
  return {
    value,
    put: (next) => {
      setValue(next);
      sessionStorage.setItem(keyOf(name), JSON.stringify(next));
    },
  };
}
