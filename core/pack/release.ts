/** Whether a delivery is another release of a pack that came before. */
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
