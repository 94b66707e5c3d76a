/** Which of several items that do the same people know best. */
import { must } from '@/core/must';
import type { Spine } from '../../shelves/model/spine';

type Known = Pick<Spine, 'status' | 'house' | 'mine' | 'stations'>;

/** What is approved, placed or has a ribbon is the one that people know. */
const weight = (spine: Known): number =>
  (spine.status === 'approved' ? 4 : 0) + (spine.house ? 2 : 0) + (spine.mine ? 1 : 0) + spine.stations * 3;

/** Of equals the first; there has to be one. */
export const knownBest = <Item extends Known>(items: readonly Item[]): Item =>
  must([...items].sort((one, other) => weight(other) - weight(one))[0]);
