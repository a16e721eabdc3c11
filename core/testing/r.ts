import { WebR } from 'webr';

let started: Promise<WebR> | undefined;

async function start(): Promise<WebR> {
  const webR = new WebR();
  await webR.init();
  return webR;
}

/**
 * R itself, compiled to WebAssembly: the reference most checks are made against. Tests only. It starts once for all
 * the files that run in one process one after the other (3 seconds of work each time); each finds nothing named in it.
 */
export async function startR() {
  const webR = await (started ??= start());
  await webR.evalRVoid('rm(list = ls(all.names = TRUE))');
  return {
    /** Evaluates R code that gives a numeric vector. */
    numbers: async (code: string): Promise<number[]> => {
      const raw = await webR.evalRRaw(`as.numeric({${code}})`, 'number[]');
      return raw;
    },
    /** Evaluates R code that gives a character vector. */
    texts: (code: string): Promise<string[]> => webR.evalRRaw(`as.character({${code}})`, 'string[]'),
    /** Writes a file R can read, its folder included. */
    write: async (path: string, bytes: Uint8Array): Promise<void> => {
      await webR.evalRVoid(
        `dir.create(dirname(${JSON.stringify(path)}), recursive = TRUE, showWarnings = FALSE)`,
      );
      await webR.FS.writeFile(path, bytes);
    },
  };
}

export type R = Awaited<ReturnType<typeof startR>>;
