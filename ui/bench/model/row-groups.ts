/** Rows that stand together since their camera and their light are the same. */
import { bodyOf } from '@/core/frame/body';
import type { FrameOnBench } from './frame';

/** Below so many rows, heads over groups are more in the way than they tell. */
const LEAST_ROWS = 4;

const groupOf = (frame: FrameOnBench): string => [bodyOf(frame) || 'no camera', frame.light || 'no light'].join(', ');

/** Frames by camera, and of one camera by light, each kind where its first stands. */
export function grouped<T extends FrameOnBench>(frames: readonly T[]): T[] {
  const places = new Map<string, number>();
  const placeOf = (key: string): number => {
    if (!places.has(key)) places.set(key, places.size);
    return places.get(key) ?? 0;
  };
  const keyed = frames.map((frame) => ({
    frame,
    camera: placeOf(`camera ${bodyOf(frame)}`),
    light: placeOf(`light ${bodyOf(frame)} ${frame.light}`),
  }));
  return keyed.sort((a, b) => a.camera - b.camera || a.light - b.light).map(({ frame }) => frame);
}

/** For each row the head that stands over it: where another group begins; null for the others, and where there is one group. */
export function groupHeads(frames: readonly FrameOnBench[]): (string | null)[] {
  const groups = frames.map(groupOf);
  if (frames.length < LEAST_ROWS || new Set(groups).size < 2) return groups.map(() => null);
  return groups.map((group, i) => (group === groups[i - 1] ? null : group));
}
