/** The files of what was dropped, folders with all that is in them. */

/** What a browser says of one thing that was dropped. */
export interface Entry {
  readonly name: string;
  readonly isFile: boolean;
  readonly isDirectory: boolean;
  file?(done: (file: File) => void, failed: (error: unknown) => void): void;
  createReader?(): { readEntries(done: (some: Entry[]) => void, failed: (error: unknown) => void): void };
}

/** What systems put into folders for themselves. */
const OF_SYSTEMS = new Set(['thumbs.db', 'desktop.ini', '__macosx']);
/** Whether a file is one that a system keeps for itself. */
export const isOfSystem = (name: string): boolean => name.startsWith('.') || OF_SYSTEMS.has(name.toLowerCase());

/** Files of entries, in the order of their paths. What a system keeps in folders for itself is left out. */
export async function filesIn(entries: readonly Entry[]): Promise<File[]> {
  const found: File[] = [];
  for (const entry of entries) {
    if (isOfSystem(entry.name)) continue;
    if (entry.isDirectory) {
      const inside = await children(entry);
      found.push(...(await filesIn(inside.sort((a, b) => (a.name < b.name ? -1 : 1)))));
    } else if (entry.isFile) found.push(await fileOf(entry));
  }
  return found;
}

const fileOf = (entry: Entry) => new Promise<File>((done, failed) => entry.file?.(done, failed));

/** A folder tells its entries some at a time, and none at the end. */
async function children(folder: Entry): Promise<Entry[]> {
  const reader = folder.createReader?.();
  if (!reader) return [];
  const all: Entry[] = [];
  for (;;) {
    const some = await new Promise<Entry[]>((done, failed) => reader.readEntries(done, failed));
    if (some.length === 0) return all;
    all.push(...some);
  }
}

/** What was dropped or pasted, as long as the event lasts: the entries are to be taken in the handler itself. */
export function filesOf(data: DataTransfer): Promise<File[]> {
  const entries = [...data.items]
    .filter(({ kind }) => kind === 'file')
    .map((item) => item.webkitGetAsEntry() as Entry | null);
  // A pasted file is a single file, never part of a folder.
  return entries.length > 0 && entries.every((entry) => entry !== null)
    ? filesIn(entries)
    : Promise.resolve([...data.files]);
}
