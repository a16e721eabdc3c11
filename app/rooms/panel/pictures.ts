import type { PanelKey } from '~core/model/panel';

/** The picture of each code, by hash; codes without one are missing. */
export const pictureHashes = (key: PanelKey, codes: readonly string[]): ReadonlyMap<string, string> =>
  new Map(
    key.cups.flatMap((c): [string, string][] => {
      const photo = key.samples[c.sample]?.photo;
      return photo && codes.includes(c.code) ? [[c.code, photo]] : [];
    }),
  );
