import { backupBeside } from '../workers/files';
import { writeBackup } from './backup';
import { bench, benchName } from './bench';
import { tellWrittenBeside } from './follow';
import { inLock } from './locks';
import { unsavedSince } from './unsaved';

/** As much of a folder as is used here; the library's types don't know its permissions. */
export interface Folder {
  name: string;
  getFileHandle: (
    name: string,
    options?: { create?: boolean },
  ) => Promise<{
    createWritable: () => Promise<WritableStream<Uint8Array<ArrayBuffer>>>;
    getFile: () => Promise<Blob>;
  }>;
  queryPermission?: (o: { mode: 'readwrite' }) => Promise<PermissionState>;
  requestPermission?: (o: { mode: 'readwrite' }) => Promise<PermissionState>;
}
type Picker = (o: { mode: 'readwrite'; id: string }) => Promise<Folder>;

const KEY = 'folder';
/** How often it is looked whether something isn't in the folder yet, ms. */
const LOOK_MS = 60_000;

const picker = () => (window as { showDirectoryPicker?: Picker }).showDirectoryPicker;

/** Whether this browser can write into a folder at all. */
export const canKeepFolder = (): boolean => picker() !== undefined;

/** The folder that is kept up to date, and whether the browser still lets this page write there. */
export async function keptFolder(): Promise<{ name: string; allowed: boolean } | null> {
  const row = await (await bench()).handles.get(KEY);
  if (!row) return null;
  const state = (await row.folder.queryPermission?.({ mode: 'readwrite' })) ?? 'granted';
  return { name: row.folder.name, allowed: state === 'granted' };
}

/** Lets the user choose a folder, and keeps it. @returns false where nothing was chosen */
export async function chooseFolder(): Promise<boolean> {
  try {
    const folder = await picker()!({ mode: 'readwrite', id: 'palazzo' });
    await (await bench()).handles.put({ key: KEY, folder });
    return true;
  } catch (e) {
    if ((e as Error).name === 'AbortError') return false;
    throw e;
  }
}

/** Asks the browser again for what it forgot. */
export async function allowFolder(): Promise<boolean> {
  const row = await (await bench()).handles.get(KEY);
  return (await row?.folder.requestPermission?.({ mode: 'readwrite' })) !== 'denied';
}

/** Leaves the folder as it is from now on. */
export async function leaveFolder(): Promise<void> {
  await (await bench()).handles.delete(KEY);
}

/** Writes the bench into the folder where something isn't in a backup yet. @returns whether it was written */
export const updateFolder = (): Promise<boolean> =>
  inLock('palazzo/folder', async () => {
    const row = await (await bench()).handles.get(KEY);
    if (!row || !(await keptFolder())?.allowed) return false;
    const { at, trials } = await unsavedSince();
    if (at !== null && trials === 0) return false;
    // Until the file is closed the old one stands: an end half-way loses nothing.
    const name = `palazzo-${benchName() === 'demo' ? 'demo-' : ''}bench.zip`;
    const file = await row.folder.getFileHandle(name, { create: true });
    const target = { stream: await file.createWritable(), written: () => file.getFile() };
    await writeBackup({ withKeys: false }, target, backupBeside);
    return true;
  });

/** Keeps the folder up to date as long as the page is open. @returns a function that stops it */
export function keepFolderUpToDate(): () => void {
  let timer: ReturnType<typeof setTimeout>;
  const look = async () => {
    if (await updateFolder().catch(() => false)) tellWrittenBeside();
    timer = setTimeout(() => void look(), LOOK_MS);
  };
  timer = setTimeout(() => void look(), 1000);
  return () => clearTimeout(timer);
}
