/** Whether a delivery is another release of a pack that came before. */
import { fileNameOf } from '../paths';
import { designName } from './likeness';

interface Pack {
  name: string;
  /** how many files of it are or could be items */ members: number;
}

/** Of the smaller and of the larger of the two, so much has to be shared where their names differ. */
const OF_SMALLER = 0.5;
const OF_LARGER = 0.4;

const nameOf = ({ name }: Pack): string => designName(name.replace(/\.zip$/i, '')).base;

/**
 * Under the same name, apart from a mark of the release, one shared file is enough. Under another name most has to be the
 * same on both sides: a delivery with one look of a pack of nine is no release of it in which eight are gone.
 */
export function isReleaseOf(pack: Pack, delivery: Pack, shared: number): boolean {
  if (shared < 1) return false;
  if (nameOf(pack) === nameOf(delivery)) return true;
  const [smaller, larger] = [pack.members, delivery.members].sort((a, b) => a - b) as [number, number];
  return shared >= OF_SMALLER * smaller && shared >= OF_LARGER * larger;
}

/** A file of a release, as far as it tells which file of another release it is. */
export interface ReleaseFile {
  path: string;
  kind: string;
  /** of its content */ sha: string;
  /** what it is, or would become a version of */ itemId: string | null;
}

type Same = (now: ReleaseFile, before: ReleaseFile) => boolean;
const nameWithin = (path: string): string => fileNameOf(path).toLowerCase();

/** By what a file is told to be one of the release before, the surest first. */
const tellings: readonly Same[] = [
  (now, before) => now.sha === before.sha,
  (now, before) => now.kind === before.kind && nameWithin(now.path) === nameWithin(before.path),
  (now, before) => now.itemId !== null && now.itemId === before.itemId,
];

/**
 * Which file of the release before each file is; each is the successor of one at most. The surest are paired first over the
 * whole release, so that no form of a design takes the place of the very same file that comes later in the list.
 */
export function pairReleases<N extends ReleaseFile, B extends ReleaseFile>(
  now: readonly N[],
  before: readonly B[],
): Map<N, B> {
  const pairs = new Map<N, B>();
  const left = new Set(before);
  for (const same of tellings)
    for (const file of now) {
      if (pairs.has(file)) continue;
      const old = [...left].find((one) => same(file, one));
      if (!old) continue;
      left.delete(old);
      pairs.set(file, old);
    }
  return pairs;
}
