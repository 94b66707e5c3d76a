/**
 * What an operation is done to: a file, or an entry of a bundle. Both have a state, can be kept and be written beside
 * their place; what sets them apart is here, and the order of the deeds (apply.ts) is one.
 */
import { copyFile, open, stat, writeFile, type FileHandle } from 'node:fs/promises';
import { entryIn, withEntry, type EntryAddress } from '@/core/sync/bundle';
import { readBundle, shaOf, type BundleText } from './bundle-file';
import { NotNow } from './faults';
import { stateOf } from './files';

export interface Target {
  /** the file that is written, absolute */ readonly file: string;
  /** the same below the station's root, with "/" */ readonly path: string;
  /** The hash of what is there, null for nothing; something that is no content is "occupied". */
  state(): Promise<string | null>;
  /** When what is there came there, as far as the file system knows. */
  since(): Promise<string>;
  /** Throws where nothing can be put. */
  ready(): Promise<void>;
  /** Writes what is there to a file of ours. */
  copyTo(file: string): Promise<void>;
  /**
   * Writes what the file is to be into an open one, and answers with its hash; null where it is the operation's own.
   * `staged` is null where the operation takes away.
   */
  compose(handle: FileHandle, staged: string | null): Promise<string | null>;
  /** Whether the file goes with what is taken away, or stays without it. */ readonly goesWhole: boolean;
  /** Throws NotNow where what was composed was made of something that is not there any more. */
  settle(): Promise<void>;
}

export class FileTarget implements Target {
  readonly goesWhole = true;
  constructor(
    readonly file: string,
    readonly path: string,
  ) {}

  state(): Promise<string | null> {
    return stateOf(this.file);
  }
  since(): Promise<string> {
    return writtenAt(this.file);
  }
  async ready(): Promise<void> {}
  copyTo(file: string): Promise<void> {
    return copyFile(this.file, file);
  }
  async compose(handle: FileHandle, staged: string | null): Promise<null> {
    if (staged) await copyInto(handle, staged);
    return null;
  }
  async settle(): Promise<void> {}
}

/** An entry of a bundle. The rest of the bundle stays byte for byte, and is looked at again before it is replaced. */
export class EntryTarget implements Target {
  readonly goesWhole = false;
  readonly path: string;
  private made: BundleText | null = null;
  constructor(
    readonly file: string,
    private readonly root: string,
    private readonly entry: EntryAddress,
  ) {
    this.path = entry.file;
  }

  private async bundle(): Promise<BundleText> {
    const found = await readBundle(this.root, this.entry.file);
    if (found) return found;
    throw new Error(
      `there is no ${this.entry.file}: start the editor and quit it once, which writes it; then plan again`,
    );
  }
  private async held(): Promise<Uint8Array | null> {
    const found = await readBundle(this.root, this.entry.file);
    return found && entryIn(found.text, this.entry);
  }

  async state(): Promise<string | null> {
    const held = await this.held();
    return held && shaOf(held);
  }
  since(): Promise<string> {
    return writtenAt(this.file);
  }
  async ready(): Promise<void> {
    await this.bundle();
  }
  async copyTo(file: string): Promise<void> {
    const held = await this.held();
    if (held) await writeFile(file, held);
  }
  async compose(handle: FileHandle, staged: string | null): Promise<string> {
    this.made = await this.bundle();
    const text = withEntry(this.made.text, this.entry, staged ? await readWhole(staged) : null);
    await handle.writeFile(text);
    await handle.chmod(this.made.mode);
    return shaOf(text);
  }
  async settle(): Promise<void> {
    const now = await readBundle(this.root, this.entry.file);
    if (now?.sha256 !== this.made?.sha256) throw new NotNow(`"${this.entry.file}" was changed meanwhile`);
  }
}

const writtenAt = async (file: string): Promise<string> => (await stat(file)).mtime.toISOString();

async function copyInto(handle: FileHandle, from: string): Promise<void> {
  const source = await open(from, 'r');
  try {
    const buffer = Buffer.alloc(1 << 20);
    for (;;) {
      const { bytesRead } = await source.read(buffer, 0, buffer.length, null);
      if (!bytesRead) return;
      await handle.writeFile(buffer.subarray(0, bytesRead));
    }
  } finally {
    await source.close();
  }
}

async function readWhole(file: string): Promise<Uint8Array> {
  const handle = await open(file, 'r');
  try {
    return await handle.readFile();
  } finally {
    await handle.close();
  }
}
