export function findChromium(): string | undefined;
export function findTestBrowser(): string | undefined;
export function ensureChromium(): string | null;
export function ensureTestBrowser(): string | null;
export const chromiumFlags: string[];
