/** Reads archives from outside, entry by entry, under the limits of core/pack/entry-rules. One bad entry never stops the rest. */
import { must } from '@/core/must';
import { createHash } from 'node:crypto';
import { promisify } from 'node:util';
import { inflateRaw, inflateRawSync } from 'node:zlib';
import yauzl from 'yauzl';
import { entryPath, foldPath, leftBehind, limits, refuseEntry } from '@/core/pack/entry-rules';
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

/** Decodes an entry's name: UTF-8 where flagged or valid, else code page 437's ASCII part with the rest as Latin-1. */
function nameOf(raw: Buffer): string {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(raw);
  } catch {
    return raw.toString('latin1');
  }
}

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

/** Walks a ZIP in a file (or in memory, for one inside another). `whole` tells archives that are one file of an editor's, and are not opened. Throws a Problem only if its directory cannot be read. */
export async function* walkArchive(
  source: string | Buffer,
  whole: (bytes: Buffer) => boolean = () => false,
  prefix = '',
  depth = 0,
  budget: Budget = { entries: 0, bytes: 0 },
): AsyncGenerator<ArchiveEvent> {
  let zip: yauzl.ZipFile;
  try {
    zip = await open(source);
  } catch {
    throw truncated(prefix || 'the archive');
  }
  const seen = new Set<string>();
  try {
    for (;;) {
      let entry: yauzl.Entry | null;
      try {
        entry = await nextEntry(zip);
      } catch {
        if (budget.entries === 0 && !prefix) throw truncated('the list of contents');
        yield {
          type: 'refused',
          path: prefix || '(rest of the archive)',
          size: 0,
          problem: truncated('the list of contents'),
        };
        return;
      }
      if (!entry) return;
      const raw = nameOf(entry.fileName as unknown as Buffer);
      const size = entry.uncompressedSize;
      if (raw.endsWith('/') && size === 0) continue;
      if (++budget.entries > limits.entries) {
        yield {
          type: 'refused',
          path: prefix + raw.slice(0, 200),
          size,
          problem: new Problem(
            'limit-count',
            `The archive holds more than ${limits.entries} files; from this one on, they are not read.`,
            raw.slice(0, 200),
            'Split the arrival into smaller archives.',
          ),
        };
        return;
      }
      let path: string;
      try {
        path = prefix + entryPath(raw);
      } catch (error) {
        if (!(error instanceof Problem)) throw error;
        yield { type: 'refused', path: prefix + raw.slice(0, 200), size, problem: error };
        continue;
      }
      const why = leftBehind(path);
      if (why) {
        yield { type: 'ignored', path, size, why };
        continue;
      }
      const mode = (entry.externalFileAttributes >>> 16) & 0o170000;
      const bad = refuseEntry({
        path,
        packed: entry.compressedSize,
        size,
        encrypted: (entry.generalPurposeBitFlag & 1) !== 0,
        link: mode === 0o120000,
        method: entry.compressionMethod,
      });
      if (bad) {
        yield { type: 'refused', path, size, problem: bad };
        continue;
      }
      if (seen.has(foldPath(path))) {
        yield {
          type: 'refused',
          path,
          size,
          problem: new Problem(
            'entry-duplicate',
            'Another entry has the same name, but for case or Unicode form; which of the two is meant cannot be known.',
            path,
            'Ask the supplier for a clean archive.',
          ),
        };
        continue;
      }
      seen.add(foldPath(path));
      if ((budget.bytes += size) > limits.totalBytes) {
        yield {
          type: 'refused',
          path,
          size,
          problem: new Problem(
            'limit-size',
            `The archive unpacks to more than ${limits.totalBytes / 2 ** 30} GB; from this entry on, nothing is read.`,
            path,
            'Split the arrival into smaller archives.',
          ),
        };
        return;
      }
      let bytes: Buffer;
      try {
        bytes = await contents(zip, entry);
      } catch {
        yield {
          type: 'refused',
          path,
          size,
          problem: new Problem(
            'zip-truncated',
            'The entry’s contents are cut off or damaged.',
            path,
            'Ask the supplier for the archive again; the rest of this one is read.',
          ),
        };
        continue;
      }
      if (bytes.length >= 4 && bytes.readUInt32LE(0) === 0x04034b50 && !whole(bytes)) {
        if (depth + 1 > limits.nested) {
          yield {
            type: 'refused',
            path,
            size,
            problem: new Problem(
              'zip-depth',
              `Archives lie more than ${limits.nested} deep in one another.`,
              path,
              'Unpack it and drop the folder instead.',
            ),
          };
          continue;
        }
        if (bytes.length > limits.nestedBytes) {
          yield {
            type: 'refused',
            path,
            size,
            problem: new Problem(
              'limit-size',
              `An archive inside an archive may have ${limits.nestedBytes / 2 ** 20} MB.`,
              path,
              'Drop the inner archive by itself.',
            ),
          };
          continue;
        }
        try {
          yield* walkArchive(bytes, whole, `${path}/`, depth + 1, budget);
        } catch (error) {
          if (!(error instanceof Problem)) throw error;
          yield { type: 'refused', path, size, problem: within(path, error) };
        }
        continue;
      }
      yield { type: 'file', path, bytes, sha256: createHash('sha256').update(bytes).digest() };
    }
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
    return packed;
  }
  // small files are unpacked at once, which saves the way to another thread and back
  const most = { maxOutputLength: Math.max(1, entry.uncompressedSize) };
  const bytes = entry.uncompressedSize <= 1 << 20 ? inflateRawSync(packed, most) : await inflate(packed, most);
  if (bytes.length !== entry.uncompressedSize) throw new Error('fewer bytes than the directory says');
  return bytes;
}
