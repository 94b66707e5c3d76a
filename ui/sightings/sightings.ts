/** What screens know of an item that is to be seen working. */
import type { SightingState } from '@/core/records/sighting';

export interface SightingShown {
  id: string;
  state: SightingState;
  reason: string;
  frame: string;
  by: 'editor' | 'person';
}

/** As the table of states has it. */
export const shownAs: Record<SightingState, string> = {
  asked: 'picture-asked',
  seen: 'seen-working',
  differs: 'does-otherwise',
  unclear: 'effect-unclear',
  failed: 'no-picture',
};

/** A file's state as it is shown: one that is listed and was seen working is that. */
export function stateWith(
  { state, reason }: { state: string; reason: string },
  sighting: Pick<SightingShown, 'state' | 'reason'> | undefined,
): { state: string; reason: string } {
  const isSeen = state === 'listed' && sighting?.state === 'seen';
  return isSeen ? { state: shownAs.seen, reason: sighting.reason } : { state, reason };
}
