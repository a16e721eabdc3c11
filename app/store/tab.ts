import { randomHex } from './chance';

const KEY = 'palazzo-tab';

/** This tab's own name: it lives through reloads, so that Undo does too. */
export function tabId(): string {
  let id = sessionStorage.getItem(KEY);
  if (!id) sessionStorage.setItem(KEY, (id = randomHex(8)));
  return id;
}
