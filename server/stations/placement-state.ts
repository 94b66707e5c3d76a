/** What became of a placement, told from the editor's own list: pure, so that each screen says the same. */
import type { Descriptor } from '@/core/editor/descriptor';
import type { Listing } from '@/core/sync/protocol';

export type PlacementState = {
  state: 'listed' | 'refused' | 'restart-due' | 'rescan-due' | 'launch-due' | 'not-listed';
  reason: string;
};

/** What becomes of a file that was taken away, while the editor still lists it. */
export function takenAwayState({ title, sees }: Descriptor, running: boolean): PlacementState {
  if (!running) return { state: 'launch-due', reason: `${title} lists it until it is started the next time` };
  return sees === 'launch'
    ? { state: 'restart-due', reason: `it was taken away, and ${title} lists it until it is quit and started` }
    : { state: 'rescan-due', reason: `it was taken away, and ${title} has not rescanned yet` };
}

export function placementState(
  descriptor: Descriptor,
  path: string,
  placedAt: Date,
  running: boolean,
  listing: Listing | null,
  listedAt: Date | null,
): PlacementState {
  if (listing && listedAt && listedAt.getTime() >= placedAt.getTime()) {
    if (listing.listed.some((l) => l.path === path)) return { state: 'listed', reason: `${descriptor.title} lists it` };
    const refused = listing.refused.find((r) => r.path === path);
    if (refused) return { state: 'refused', reason: refused.reason };
    return { state: 'not-listed', reason: `${descriptor.title} has read its folder since and says nothing of it` };
  }
  if (!running)
    return { state: 'launch-due', reason: `${descriptor.title} is not running; it reads the file when it is started` };
  return descriptor.sees === 'launch'
    ? { state: 'restart-due', reason: `${descriptor.title} reads its folders only at launch: quit and start it` }
    : { state: 'rescan-due', reason: `${descriptor.title} has not rescanned yet` };
}
