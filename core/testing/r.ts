import { WebR } from 'webr';

/** R itself, compiled to WebAssembly: the reference most checks are made against. Tests only. */
export async function startR() {
  const webR = new WebR();
  await webR.init();
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
    close: () => webR.close(),
  };
}

export type R = Awaited<ReturnType<typeof startR>>;
