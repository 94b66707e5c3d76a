/** What became of a placement, told from the editor's own list: pure, so that each screen says the same. */
import type { Descriptor } from '@/core/editor/descriptor';
import type { Listing } from '@/core/sync/protocol';

export type PlacementState = {
  state: 'listed' | 'refused' | 'restart-due' | 'rescan-due' | 'launch-due' | 'import-due' | 'not-listed';
  reason: string;
};

/** Something of ours that lies at a station, as far as its editor may list it. */
export interface Placed {
  path: string;
  place: string;
  kind: string | null;
  title: string | null;
  sha: string;
  placed_at: Date;
}
/** An editor there, and what it said last. */
export interface Lister {
  descriptor: Descriptor;
  running: boolean;
  listing: Listing | null;
  listed_at: Date | null;
}

/** What becomes of a file that was taken away, while the editor still lists it. */
export function takenAwayState({ title, sees }: Descriptor, running: boolean): PlacementState {
  if (!running) return { state: 'launch-due', reason: `${title} lists it until it is started the next time` };
  return sees === 'launch'
    ? { state: 'restart-due', reason: `it was taken away, and ${title} lists it until it is quit and started` }
    : { state: 'rescan-due', reason: `it was taken away, and ${title} has not rescanned yet` };
}

/** Of what goes through a hand-off folder: the steps by which a person has the editor take it in; null for all else. */
export const importSteps = (
  { accepts }: Descriptor,
  { place, kind }: Pick<Placed, 'place' | 'kind'>,
): string[] | null => accepts.find((one) => one.place === place && one.kind === kind)?.import ?? null;

/** The editor keeps what it took in where it likes: told by its content where the editor tells that, else by its title. */
const isTakenIn = ({ listed }: Listing, { kind, title, sha }: Placed): boolean =>
  listed.some((one) => one.kind === kind && (one.sha256 === undefined ? one.title === title : one.sha256 === sha));

function importState(
  { descriptor, listing, running }: Lister,
  placed: Placed,
  steps: readonly string[],
): PlacementState {
  if (listing && isTakenIn(listing, placed))
    return { state: 'listed', reason: `${descriptor.title} has taken it in, and lists it` };
  const refused = listing?.refused.find((one) => one.path === placed.path);
  if (refused) return { state: 'refused', reason: refused.reason };
  const first = running ? [] : [`${descriptor.title} is not running: start it.`];
  return { state: 'import-due', reason: [...first, ...steps].join(' ') };
}

export function placementState(editor: Lister, placed: Placed): PlacementState {
  const { descriptor, running, listing, listed_at: listedAt } = editor;
  const steps = importSteps(descriptor, placed);
  if (steps) return importState(editor, placed, steps);
  if (listing && listedAt && listedAt.getTime() >= placed.placed_at.getTime()) {
    if (listing.listed.some((l) => l.path === placed.path))
      return { state: 'listed', reason: `${descriptor.title} lists it` };
    const refused = listing.refused.find((r) => r.path === placed.path);
    if (refused) return { state: 'refused', reason: refused.reason };
    return { state: 'not-listed', reason: `${descriptor.title} has read its folder since and says nothing of it` };
  }
  if (!running)
    return { state: 'launch-due', reason: `${descriptor.title} is not running; it reads the file when it is started` };
  return descriptor.sees === 'launch'
    ? { state: 'restart-due', reason: `${descriptor.title} reads its folders only at launch: quit and start it` }
    : { state: 'rescan-due', reason: `${descriptor.title} has not rescanned yet` };
}
