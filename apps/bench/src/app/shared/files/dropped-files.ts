/** How deep folders are looked into, and how many files are taken from them. */
const DEEPEST = 6;
const MOST_FILES = 400;

/** Files that were dropped, also those in folders; must be asked for while the drop is handled. */
export function droppedFiles({ items, files }: DataTransfer): Promise<readonly File[]> {
  // Entries can only be had during the event; what is in them comes later.
  const entries = [...items].map((item) => (item.kind === 'file' ? item.webkitGetAsEntry() : null));
  const plain = [...files];
  if (!entries.some((entry) => entry?.isDirectory)) return Promise.resolve(plain);
  const found = entries.map((entry) => (entry ? filesOf(entry, 0) : Promise.resolve([])));
  return Promise.all(found).then((all) => all.flat().slice(0, MOST_FILES));
}

async function filesOf(entry: FileSystemEntry, depth: number): Promise<readonly File[]> {
  if (entry.name.startsWith('.')) return [];
  if (entry.isFile) return [await new Promise<File>((resolve, reject) => (entry as FileSystemFileEntry).file(resolve, reject))];
  if (depth >= DEEPEST) return [];
  const reader = (entry as FileSystemDirectoryEntry).createReader();
  const found: File[] = [];
  // A folder is read in portions; an empty one is the last.
  for (;;) {
    const portion = await new Promise<FileSystemEntry[]>((resolve, reject) => reader.readEntries(resolve, reject));
    if (portion.length === 0 || found.length >= MOST_FILES) return found;
    for (const each of portion) found.push(...(await filesOf(each, depth + 1)));
  }
}
