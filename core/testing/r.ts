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
    close: () => webR.close(),
  };
}

export type R = Awaited<ReturnType<typeof startR>>;
