/** What was dropped or chosen, in groups: a folder is one with its tree, a ZIP is one, loose files together are one. */
export interface Dropped {
  name: string;
  files: { path: string; file: File }[];
}

const leftovers = /(^|\/)(\.DS_Store|Thumbs\.db|desktop\.ini|\._[^/]*)$/;

async function walk(entry: FileSystemEntry, path: string, out: Dropped['files']): Promise<void> {
  if (entry.isFile) {
    const file = await new Promise<File>((yes, no) => (entry as FileSystemFileEntry).file(yes, no));
    if (file.size && !leftovers.test(path)) out.push({ path, file });
    return;
  }
  const reader = (entry as FileSystemDirectoryEntry).createReader();
  // a directory is read in portions until one is empty
  for (;;) {
    const some = await new Promise<FileSystemEntry[]>((yes, no) => reader.readEntries(yes, no));
    if (!some.length) return;
    for (const e of some) await walk(e, `${path}/${e.name}`, out);
  }
}

function grouped(loose: File[], folders: Dropped[]): Dropped[] {
  const zips = loose
    .filter((f) => /\.zip$/i.test(f.name))
    .map((f) => ({ name: f.name, files: [{ path: f.name, file: f }] }));
  const rest = loose.filter((f) => !/\.zip$/i.test(f.name) && !leftovers.test(f.name));
  const together = rest.length
    ? [
        {
          name: rest.length === 1 ? must(rest[0]).name : `${rest.length} files`,
          files: rest.map((f) => ({ path: f.name, file: f })),
        },
      ]
    : [];
  return [...folders.filter((f) => f.files.length), ...zips, ...together];
}

export async function fromDrop(items: DataTransferItemList, files: FileList): Promise<Dropped[]> {
  const entries = [...items].map((i) => i.webkitGetAsEntry()).filter((e): e is FileSystemEntry => e !== null);
  const loose: File[] = [];
  const folders: Dropped[] = [];
  if (!entries.length) return grouped([...files], []);
  const flat = [...files];
  for (const fileSystemEntry of entries)
    if (fileSystemEntry.isFile) {
      const file = flat.find((x) => x.name === fileSystemEntry.name);
      if (file) loose.push(file);
    }
  for (const fileSystemEntry of entries)
    if (fileSystemEntry.isDirectory) {
      const dropped: Dropped = { name: fileSystemEntry.name, files: [] };
      await walk(fileSystemEntry, fileSystemEntry.name, dropped.files);
      folders.push(dropped);
    }
  return grouped(loose, folders);
}

/** Files of an input; those of a folder bear their path in it. */
export function fromInput(files: FileList): Dropped[] {
  const folders = new Map<string, Dropped>();
  const loose: File[] = [];
  for (const file of files) {
    const path = file.webkitRelativePath;
    if (!path) {
      loose.push(file);
      continue;
    }
    const top = must(path.split('/')[0]);
    const dropped = folders.get(top) ?? { name: top, files: [] };
    if (file.size && !leftovers.test(path)) dropped.files.push({ path, file });
    folders.set(top, dropped);
  }
  return grouped(loose, [...folders.values()]);
}
import { must } from '@/core/must';
