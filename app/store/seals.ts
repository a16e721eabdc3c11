import { z } from 'zod';
import type { Entry } from '~core/log/entry';
import { localDay } from '~core/log/localDay';
import type { Seal } from '~core/log/views';
import { formatDay } from '~core/quantity/region';
import type { BenchDb } from './db';

/** Seals of a trial that this bench has seen: they are remembered when the trial is deleted too. */
const Seen = z.array(
  z.object({
    sha256: z.string(),
    at: z.string(),
    /** null: remembered before it was kept */
    offsetMin: z.number().nullable().default(null),
  }),
);
type Seen = z.infer<typeof Seen>;

const keyOf = (trialId: string) => `seals/${trialId}`;
/** Seals that are remembered of one trial; the oldest stay. */
const MOST = 20;

async function seen(db: BenchDb, trialId: string): Promise<Seen> {
  const row = await db.settings.get(keyOf(trialId));
  return row ? Seen.parse(JSON.parse(row.value)) : [];
}

/** Remembers the seals among lines that are kept. @param db inside the transaction that keeps them */
export async function noteSeals(db: BenchDb, trialId: string, lines: readonly Entry[]): Promise<void> {
  const seals = lines.flatMap((l) => (l.kind === 'seal' ? [l.planSha256] : []));
  if (seals.length === 0) return;
  const before = await seen(db, trialId);
  const fresh = [...new Set(seals)].filter((s) => !before.some((b) => b.sha256 === s));
  if (fresh.length === 0) return;
  const now = new Date();
  const moment = { at: now.toISOString(), offsetMin: -now.getTimezoneOffset() };
  const all = [...before, ...fresh.map((sha256) => ({ sha256, ...moment }))].slice(0, MOST);
  await db.settings.put({ key: keyOf(trialId), value: JSON.stringify(all) });
}

/**
 * What this bench knows against the seal of a copy, in words; null where it knows nothing.
 * @param sealed SHA-256 the copy's seal has; null: it isn't sealed
 * @param here the seal of the trial as it stands here: a copy without one is only older
 * @example 'This file has a seal, but not the one this bench saw on 3 May 2026.'
 */
export async function sayOtherSeal(
  db: BenchDb,
  trialId: string,
  sealed: string | null,
  here: Pick<Seal, 'planSha256' | 'at' | 'offsetMin'> | null,
): Promise<string | null> {
  const before = await seen(db, trialId);
  const known = here ? [...before, { ...here, sha256: here.planSha256 }] : before;
  if (known.length === 0 || known.some((k) => k.sha256 === sealed)) return null;
  if (here && sealed === null) return null;
  const day = formatDay(localDay(known.at(-1)!));
  return sealed === null
    ? `This copy isn’t sealed; this bench saw the trial sealed on ${day}. Its seal was taken out, or the copy is older.`
    : `This copy has a seal, but not the one this bench saw on ${day}: its plan is another one, sealed anew.`;
}
