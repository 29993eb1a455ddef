/** The files of a drop, those within folders too, at any depth; hidden ones are left, and each folder is in order of names. */
export async function filesOfDrop(dropped: DataTransfer | null): Promise<File[]> {
  // What is dropped is gone once the event is over, so all entries are taken at once.
  const entries = [...(dropped?.items ?? [])].flatMap((item) => item.webkitGetAsEntry?.() ?? []);
  if (entries.length === 0) return [...(dropped?.files ?? [])];
  return (await Promise.all(entries.map(filesIn))).flat();
}

/** Where files stood in a folder that was dropped. */
const places = new WeakMap<File, string>();

/** Where a file stood in the folder that it came in; its name, where it came alone. */
export const placeOf = (file: File): string => places.get(file) ?? (file.webkitRelativePath || file.name);

async function fileOf(entry: FileSystemFileEntry): Promise<File> {
  const file = await new Promise<File>((done, failed) => entry.file(done, failed));
  places.set(file, entry.fullPath.replace(/^\//, ''));
  return file;
}

async function filesIn(entry: FileSystemEntry): Promise<File[]> {
  if (isHidden(entry.name)) return [];
  if (entry.isFile) return [await fileOf(entry as FileSystemFileEntry)];
  const reader = (entry as FileSystemDirectoryEntry).createReader();
  const children: FileSystemEntry[] = [];
  // A folder is told in parts, until one is empty (File and Directory Entries API, 7.2).
  for (;;) {
    const part = await new Promise<FileSystemEntry[]>((done, failed) => reader.readEntries(done, failed));
    if (part.length === 0) break;
    children.push(...part);
  }
  return (await Promise.all(inOrder(children).map(filesIn))).flat();
}

export const isHidden = (name: string): boolean => name.startsWith('.');

const NAMES = new Intl.Collator(undefined, { numeric: true, sensitivity: 'base' });

/** By name as a person counts: "2.pdf" before "10.pdf". */
export const inOrder = <T extends { readonly name: string }>(all: readonly T[]): T[] =>
  [...all].sort((one, other) => NAMES.compare(one.name, other.name));
