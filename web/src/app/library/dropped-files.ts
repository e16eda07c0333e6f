/** A file that was dropped or chosen, and its path from where that was. */
export interface FoundFile {
  readonly path: string;
  readonly file: File;
}

/** Files of dropped folders that are looked at, and how deep folders are. */
const MOST_FILES = 2_000;
const DEEPEST = 20;

/** All files that were dropped, with those in folders. What a browser cannot read of a folder is an error. */
export async function droppedFiles({ items, files }: DataTransfer): Promise<FoundFile[]> {
  // Only while the drop is being told are its entries there.
  const entries = Array.from(items, (item) => item.webkitGetAsEntry());
  const plain = Array.from(files, (file) => ({ path: file.name, file }));
  if (!entries.some((entry) => entry?.isDirectory)) return plain;
  const found: FoundFile[] = [];
  for (const entry of entries) if (entry) await gather(entry, '', found, DEEPEST);
  return found;
}

async function gather(
  entry: FileSystemEntry,
  folder: string,
  found: FoundFile[],
  deepest: number,
): Promise<void> {
  if (found.length >= MOST_FILES || deepest === 0 || entry.name.startsWith('.')) return;
  const path = folder + entry.name;
  if (entry.isFile) {
    const file = await new Promise<File>((resolve, reject) =>
      (entry as FileSystemFileEntry).file(resolve, reject),
    );
    found.push({ path, file });
    return;
  }
  const reader = (entry as FileSystemDirectoryEntry).createReader();
  // A part of a folder comes at a time, an empty one at the end (File and Directory Entries API, 7.3).
  for (;;) {
    const part = await new Promise<FileSystemEntry[]>((resolve, reject) =>
      reader.readEntries(resolve, reject),
    );
    if (part.length === 0) return;
    for (const child of part) await gather(child, `${path}/`, found, deepest - 1);
  }
}
