export function findChromium(): string | undefined;
export function ensureChromium(): string | null;
export const chromiumFlags: string[];
