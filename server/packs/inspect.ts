/** What a pack holds, without database: recognition of each entry, refusals, and what is left out. */
import type { Descriptor } from '@/core/editor/descriptor';
import { archiveEditor, recognise, type Recognised } from '@/core/pack/recognise';
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
  } catch (e) {
    if (e instanceof Problem)
      return { type: 'refused', path, size: bytes.length, sha256: null, problem: within(path, e) };
    throw e;
  }
}

export async function* inspectPack(file: string, descriptors: readonly Descriptor[]): AsyncGenerator<Inspected> {
  for await (const e of walkArchive(file, (bytes) => archiveEditor(bytes, descriptors) !== null)) {
    if (e.type === 'file') yield inspectFile(e.path, e.bytes, e.sha256, descriptors);
    else if (e.type === 'refused') yield { ...e, sha256: null };
    else yield e;
  }
}
