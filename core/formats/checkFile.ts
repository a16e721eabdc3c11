import { strFromU8, unzipSync } from 'fflate';
import { deriveState } from '../log/state';
import { verifySeal } from '../log/verifySeal';
import { type Result, ok } from '../model/result';
import { importBulk } from './bulkFiles';
import { type ImportError, importTrial } from './dataPackage';
import { signedBy } from '../log/record';
import { FileRecord, RECORD_FILE, recordOf } from './record';
import { safeJson } from './safeJson';

/** What can be told of a trial's file from itself. */
interface FileCheck {
  /** whether the plan is the one that was sealed; `none`: not sealed, or a copy under codes, of which it can't be told */
  seal: 'ok' | 'none' | 'differs';
  /** SHA-256 of the plan as the seal has it */
  sealed: string | null;
  /** lines of the log */
  lines: number;
  /** lines, tables and parts that aren't as the file says of itself: changed, missing, added, or in another place */
  altered: string[];
  bulk: { checked: number; altered: string[] };
  /** one hash for plan and log as they are in the file */
  signed: string;
  /** the file says nothing of itself: it is older, or what it said was taken out */
  unsigned: boolean;
}

/** Lines that are changed, missing, added or moved against what was said of them. */
function alteredLines(said: FileRecord['lines'], found: FileRecord['lines']): string[] {
  const [before, now] = [new Map(said), new Map(found)];
  const changed = [...now].filter(([id, hash]) => before.get(id) !== hash).map(([id]) => id);
  const gone = [...before.keys()].filter((id) => !now.has(id));
  // What is left in both, in either order: a line that moved stands out of its place.
  const both = (list: FileRecord['lines']) =>
    list.map(([id]) => id).filter((id) => before.has(id) && now.has(id));
  const [a, b] = [both(said), both(found)];
  const moved = a.filter((id, i) => b[i] !== id);
  const twice =
    found.length === now.size ? [] : found.map(([id]) => id).filter((id, i, all) => all.indexOf(id) !== i);
  return [...new Set([...changed, ...gone, ...moved, ...twice])];
}

const isPart = (name: string) => name === 'plan.json' || name === 'log.json' || name === RECORD_FILE;

/** Holds plan, log and tables of a trial's file against what it says of itself. @param zip of a trial that could be read */
export function checkRecord(zip: Uint8Array): Pick<FileCheck, 'lines' | 'altered' | 'signed' | 'unsigned'> {
  const files = unzipSync(zip, { filter: (f) => isPart(f.name) || /^data\/[\w.-]+\.csv$/.test(f.name) });
  const json = (name: string): unknown => {
    const parsed = files[name] && safeJson(strFromU8(files[name]));
    return parsed?.ok ? parsed.value : null;
  };
  const [plan, log] = [json('plan.json') as { plan?: unknown } | null, json('log.json')];
  const lines: unknown[] = Array.isArray(log) ? log : [];
  const tables = Object.fromEntries(Object.entries(files).filter(([name]) => name.startsWith('data/')));
  const actual = recordOf(plan?.plan ?? null, lines, tables);
  const record = FileRecord.safeParse(json(RECORD_FILE));
  const recorded = record.success ? record.data : null;
  const altered =
    recorded === null
      ? []
      : [
          ...(recorded.plan === actual.plan ? [] : ['plan.json']),
          ...alteredLines(recorded.lines, actual.lines),
          ...Object.keys(recorded.tables).filter((path) => recorded.tables[path] !== actual.tables[path]),
          ...(recorded.signed === signedBy(recorded.plan, recorded.lines) ? [] : [RECORD_FILE]),
        ];
  return { lines: lines.length, altered, signed: actual.signed, unsigned: recorded === null };
}

/**
 * Holds a trial's file against what it says of itself: its seal, its record, its pictures and readings.
 * @example checkFile(exportTrial(trial)) // { ok: true, value: { seal: 'ok', lines: 120, altered: [], … } }
 */
export function checkFile(zip: Uint8Array): Result<FileCheck, ImportError> {
  const read = importTrial(zip);
  if (!read.ok) return read;
  const trial = read.value;
  const { seal } = deriveState(trial.plan, trial.log);
  const check = verifySeal(trial.plan, seal, trial.sealedAs).tag;
  const bulk = importBulk(zip, trial);
  return ok({
    seal: check === 'holds' ? 'ok' : check === 'broken' ? 'differs' : 'none',
    sealed: seal?.planSha256 ?? null,
    ...checkRecord(zip),
    bulk: { checked: bulk.photos.length + bulk.series.length + bulk.altered.length, altered: bulk.altered },
  });
}
