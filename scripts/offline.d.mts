export function filesToKeep(folder: string): { url: string; revision: string | null }[];
export function writeServiceWorker(folder: string): Promise<void>;
export function ofBench(worker: string, bench: string): string;
