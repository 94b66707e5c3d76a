/** What was dropped or chosen, as deliveries: a folder is one with its tree, a ZIP is one, loose files together are one. */
export interface Delivery {
  name: string;
  files: { path: string; file: File }[];
}

const leftovers = /(^|\/)(\.DS_Store|Thumbs\.db|desktop\.ini|\._[^/]*)$/;

async function walk(entry: FileSystemEntry, path: string, out: Delivery['files']): Promise<void> {
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

function grouped(loose: File[], folders: Delivery[]): Delivery[] {
  const zips = loose
    .filter((f) => /\.zip$/i.test(f.name))
    .map((f) => ({ name: f.name, files: [{ path: f.name, file: f }] }));
  const rest = loose.filter((f) => !/\.zip$/i.test(f.name) && !leftovers.test(f.name));
  const together = rest.length
    ? [
        {
          name: rest.length === 1 ? rest[0]!.name : `${rest.length} files`,
          files: rest.map((f) => ({ path: f.name, file: f })),
        },
      ]
    : [];
  return [...folders.filter((f) => f.files.length), ...zips, ...together];
}

export async function fromDrop(items: DataTransferItemList, files: FileList): Promise<Delivery[]> {
  const entries = [...items].map((i) => i.webkitGetAsEntry()).filter((e): e is FileSystemEntry => e !== null);
  const loose: File[] = [];
  const folders: Delivery[] = [];
  if (!entries.length) return grouped([...files], []);
  const flat = [...files];
  for (const e of entries)
    if (e.isFile) {
      const f = flat.find((x) => x.name === e.name);
      if (f) loose.push(f);
    }
  for (const e of entries)
    if (e.isDirectory) {
      const d: Delivery = { name: e.name, files: [] };
      await walk(e, e.name, d.files);
      folders.push(d);
    }
  return grouped(loose, folders);
}

/** Files of an input; those of a folder bear their path in it. */
export function fromInput(files: FileList): Delivery[] {
  const folders = new Map<string, Delivery>();
  const loose: File[] = [];
  for (const f of files) {
    const path = f.webkitRelativePath;
    if (!path) {
      loose.push(f);
      continue;
    }
    const top = path.split('/')[0]!;
    const d = folders.get(top) ?? { name: top, files: [] };
    if (f.size && !leftovers.test(path)) d.files.push({ path, file: f });
    folders.set(top, d);
  }
  return grouped(loose, [...folders.values()]);
}
