/** Reads archives from outside, entry by entry, under the limits of core/pack/entry-rules. One bad entry never stops the rest. */
import { must } from '@/core/must';
import { createHash } from 'node:crypto';
import { promisify } from 'node:util';
import { inflateRaw, inflateRawSync } from 'node:zlib';
import yauzl from 'yauzl';
import { entryPath, foldPath, leftBehind, limits, refuseEntry } from '@/core/pack/entry-rules';
import { crc32 } from '@/core/crc32';
import { entryName } from '@/core/pack/entry-name';
import { Problem, within } from '@/core/problem';

export type ArchiveEvent =
  | { type: 'file'; path: string; bytes: Buffer; sha256: Buffer }
  | { type: 'refused'; path: string; size: number; problem: Problem }
  | { type: 'ignored'; path: string; size: number; why: string };

const truncated = (where: string): Problem =>
  new Problem(
    'zip-truncated',
    'The archive is cut off or is no ZIP: its list of contents cannot be read.',
    where,
    'Download or copy it again; if it stays so, ask the supplier for it anew.',
  );

function open(source: string | Buffer): Promise<yauzl.ZipFile> {
  const options = {
    lazyEntries: true,
    decodeStrings: false,
    validateEntrySizes: false /* checked below, for the entry alone */,
    autoClose: false,
  } as const;
  return new Promise((resolve, reject) => {
    const done = (e: Error | null, z?: yauzl.ZipFile) => (e || !z ? reject(e ?? new Error('no archive')) : resolve(z));
    if (typeof source === 'string') yauzl.open(source, options, done);
    else yauzl.fromBuffer(source, options, done);
  });
}

interface Budget {
  entries: number;
  bytes: number;
}

/** From an entry on, nothing more of the archive is read. */
class EndOfReading extends Error {
  constructor(
    readonly path: string,
    readonly problem: Problem,
  ) {
    super(problem.message);
  }
}

/** Tells archives that are one file of an editor's, and are not opened. */
type IsWhole = (bytes: Buffer) => boolean;

interface Walk {
  zip: yauzl.ZipFile;
  whole: IsWhole;
  /** the path of the archive itself, with "/" at its end, where it lies in another */ prefix: string;
  depth: number;
  budget: Budget;
  /** paths so far, folded */ seen: Set<string>;
}

const MOST_NAME = 200;
const ZIP_SIGNATURE = 0x04034b50;
const FILE_TYPE = 0o170000;
const LINK = 0o120000;

/** The next entry, null at the end. Throws a Problem where not even the first can be read. */
async function entryOf({ zip, prefix, budget }: Walk): Promise<yauzl.Entry | null> {
  try {
    return await nextEntry(zip);
  } catch {
    if (budget.entries === 0 && !prefix) throw truncated('the list of contents');
    throw new EndOfReading(prefix || '(rest of the archive)', truncated('the list of contents'));
  }
}

function countEntry({ budget, prefix }: Walk, name: string): void {
  if (++budget.entries <= limits.entries) return;
  const shown = name.slice(0, MOST_NAME);
  const message = `The archive holds more than ${limits.entries} files; from this one on, they are not read.`;
  const problem = new Problem('limit-count', message, shown, 'Split the arrival into smaller archives.');
  throw new EndOfReading(prefix + shown, problem);
}

function countBytes({ budget }: Walk, path: string, size: number): void {
  budget.bytes += size;
  if (budget.bytes <= limits.totalBytes) return;
  const most = limits.totalBytes / 2 ** 30;
  const message = `The archive unpacks to more than ${most} GB; from this entry on, nothing is read.`;
  throw new EndOfReading(path, new Problem('limit-size', message, path, 'Split the arrival into smaller archives.'));
}

/** Throws a Problem for an entry that is not to be unpacked. */
function checkEntry({ seen }: Walk, entry: yauzl.Entry, path: string): void {
  const problem = refuseEntry({
    path,
    packed: entry.compressedSize,
    size: entry.uncompressedSize,
    encrypted: (entry.generalPurposeBitFlag & 1) !== 0,
    link: ((entry.externalFileAttributes >>> 16) & FILE_TYPE) === LINK,
    method: entry.compressionMethod,
  });
  if (problem) throw problem;
  if (seen.has(foldPath(path)))
    throw new Problem(
      'entry-duplicate',
      'Another entry has the same name, but for case or Unicode form; it is unclear which of the two is meant.',
      path,
      'Ask the supplier for a clean archive.',
    );
  seen.add(foldPath(path));
}

async function unpack({ zip }: Walk, entry: yauzl.Entry, path: string): Promise<Buffer> {
  try {
    return await contents(zip, entry);
  } catch {
    throw new Problem(
      'zip-truncated',
      'The entry’s contents are cut off or damaged.',
      path,
      'Ask the supplier for the archive again; the rest of this one is read.',
    );
  }
}

/** Throws a Problem for an archive that lies too deep, or is too large to be opened in memory. */
function checkInner({ depth }: Walk, bytes: Buffer, path: string): void {
  if (depth + 1 > limits.nested)
    throw new Problem(
      'zip-depth',
      `Archives lie more than ${limits.nested} deep in one another.`,
      path,
      'Unpack it and drop the folder instead.',
    );
  if (bytes.length > limits.nestedBytes)
    throw new Problem(
      'limit-size',
      `An archive inside an archive may have ${limits.nestedBytes / 2 ** 20} MB.`,
      path,
      'Drop the inner archive by itself.',
    );
}

async function* innerArchive(walk: Walk, bytes: Buffer, path: string): AsyncGenerator<ArchiveEvent> {
  checkInner(walk, bytes, path);
  try {
    yield* walkArchive(bytes, walk.whole, `${path}/`, walk.depth + 1, walk.budget);
  } catch (error) {
    throw error instanceof Problem ? within(path, error) : error;
  }
}

/** What an entry is: nothing for a folder, a file, or all that an archive inside holds. Throws a Problem where it is refused. */
async function* eventsOf(walk: Walk, entry: yauzl.Entry, raw: string): AsyncGenerator<ArchiveEvent> {
  const size = entry.uncompressedSize;
  const path = walk.prefix + entryPath(raw);
  const why = leftBehind(path);
  if (why) {
    yield { type: 'ignored', path, size, why };
    return;
  }
  checkEntry(walk, entry, path);
  countBytes(walk, path, size);
  const bytes = await unpack(walk, entry, path);
  const isArchive = bytes.length >= 4 && bytes.readUInt32LE(0) === ZIP_SIGNATURE;
  if (isArchive && !walk.whole(bytes)) yield* innerArchive(walk, bytes, path);
  else yield { type: 'file', path, bytes, sha256: createHash('sha256').update(bytes).digest() };
}

/** The path under which an entry is refused: cleaned where that is possible. */
function shownPath(prefix: string, raw: string): string {
  try {
    return prefix + entryPath(raw);
  } catch {
    return prefix + raw.slice(0, MOST_NAME);
  }
}

/** Walks a ZIP in a file (or in memory, for one inside another). Throws a Problem only if its directory cannot be read. */
export async function* walkArchive(
  source: string | Buffer,
  whole: IsWhole = () => false,
  prefix = '',
  depth = 0,
  budget: Budget = { entries: 0, bytes: 0 },
): AsyncGenerator<ArchiveEvent> {
  const zip = await open(source).catch(() => {
    throw truncated(prefix || 'the archive');
  });
  const walk: Walk = { zip, whole, prefix, depth, budget, seen: new Set() };
  try {
    for (let entry = await entryOf(walk); entry; entry = await entryOf(walk)) {
      const raw = entryName(entry.fileName as unknown as Buffer);
      const size = entry.uncompressedSize;
      if (raw.endsWith('/') && size === 0) continue;
      countEntry(walk, raw);
      try {
        yield* eventsOf(walk, entry, raw);
      } catch (error) {
        if (!(error instanceof Problem)) throw error;
        yield { type: 'refused', path: shownPath(prefix, raw), size, problem: error };
      }
    }
  } catch (error) {
    if (!(error instanceof EndOfReading)) throw error;
    yield { type: 'refused', path: error.path, size: 0, problem: error.problem };
  } finally {
    zip.close();
  }
}

function nextEntry(zip: yauzl.ZipFile): Promise<yauzl.Entry | null> {
  return new Promise((resolve, reject) => {
    const off = () => {
      zip.off('entry', onEntry);
      zip.off('end', onEnd);
      zip.off('error', onError);
    };
    const onEntry = (entry: yauzl.Entry) => {
      off();
      resolve(entry);
    };
    const onEnd = () => {
      off();
      resolve(null);
    };
    const onError = (error: Error) => {
      off();
      reject(error);
    };
    zip.on('entry', onEntry);
    zip.on('end', onEnd);
    zip.on('error', onError);
    zip.readEntry();
  });
}

const inflate = promisify(inflateRaw);

/** The bytes of an entry; not one more is unpacked than its directory says. */
async function contents(zip: yauzl.ZipFile, entry: yauzl.Entry): Promise<Buffer> {
  const packed = await new Promise<Buffer>((resolve, reject) =>
    zip.openReadStream(entry, { decompress: entry.compressionMethod === 0 ? null : false }, (error, stream) => {
      if (error || !stream) {
        reject(error ?? new Error('no stream'));
        return;
      }
      const parts: Buffer[] = [];
      stream.on('data', (c: Buffer) => parts.push(c));
      stream.on('error', reject);
      stream.on('end', () => resolve(parts.length === 1 ? must(parts[0]) : Buffer.concat(parts)));
    }),
  );
  if (packed.length !== entry.compressedSize) throw new Error('fewer bytes than the directory says');
  if (entry.compressionMethod === 0) {
    if (packed.length !== entry.uncompressedSize) throw new Error('other bytes than the directory says');
    return checkedSum(packed, entry);
  }
  // small files are unpacked at once, which saves the way to another thread and back
  const most = { maxOutputLength: Math.max(1, entry.uncompressedSize) };
  const bytes = entry.uncompressedSize <= 1 << 20 ? inflateRawSync(packed, most) : await inflate(packed, most);
  if (bytes.length !== entry.uncompressedSize) throw new Error('fewer bytes than the directory says');
  return checkedSum(bytes, entry);
}

function checkedSum(bytes: Buffer, entry: yauzl.Entry): Buffer {
  if (crc32(bytes) !== entry.crc32) throw new Error('another checksum than the directory says');
  return bytes;
}
