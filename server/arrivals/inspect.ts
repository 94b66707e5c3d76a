/** What a pack holds, without database: recognition of each entry, refusals, and what is left out. */
import type { Descriptor } from '@/core/editor/descriptor';
import { archiveEditor, recognise, type Recognised } from '@/core/recognise';
import { Problem, within } from '@/core/problem';
import { walkArchive } from './archive';

export type Inspected =
  | ({ type: 'entry'; path: string; bytes: Buffer; sha256: Buffer } & Recognised)
  | { type: 'refused'; path: string; size: number; sha256: Buffer | null; problem: Problem }
  | { type: 'ignored'; path: string; size: number; why: string };

/** One file: recognised, or refused with the reader's own problem. */
export function inspectFile(
  path: string,
  bytes: Buffer,
  sha256: Buffer,
  descriptors: readonly Descriptor[],
): Inspected {
  try {
    return { type: 'entry', path, bytes, sha256, ...recognise(path, bytes, descriptors) };
  } catch (error) {
    if (error instanceof Problem)
      return { type: 'refused', path, size: bytes.length, sha256: null, problem: within(path, error) };
    throw error;
  }
}

export async function* inspectPack(file: string, descriptors: readonly Descriptor[]): AsyncGenerator<Inspected> {
  for await (const archiveEvent of walkArchive(file, (bytes) => archiveEditor(bytes, descriptors) !== null)) {
    if (archiveEvent.type === 'file')
      yield inspectFile(archiveEvent.path, archiveEvent.bytes, archiveEvent.sha256, descriptors);
    else if (archiveEvent.type === 'refused') yield { ...archiveEvent, sha256: null };
    else yield archiveEvent;
  }
}
