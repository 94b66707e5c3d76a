/** Whether an editor can be asked for a picture with something of ours on: each reason against it as a rule of its own. */
import type { Descriptor } from '@/core/editor/descriptor';
import { asksForPictures } from '@/core/sync/protocol';

export interface Asked {
  by: 'editor' | 'person';
  kind: string;
  /** what its scope asks for; nothing where it is open */ input: string | null | undefined;
  /** as the station's view has it */ state: string;
  descriptor: Pick<Descriptor, 'title' | 'renders'>;
  /** of the agent there; null where there is none */ agent: string | null;
}
type Rule = (asked: Asked) => string | false;

const LISTED = ['listed', 'update-due', 'surplus'];
/** Where no agent is, nobody but the person who exports the picture can tell. */
const LISTED_FOR_PEOPLE = [...LISTED, 'by-hand'];

const rules: readonly Rule[] = [
  ({ kind }) =>
    kind !== 'look' &&
    kind !== 'preset' &&
    'only looks and presets are held against a picture; what else there is shows on camera data, which each editor develops in its own way',
  ({ input }) =>
    !!input &&
    input !== 'rendered SDR' &&
    `it is for ${input} alone, and an editor is given a frame as a rendered picture`,
  ({ state, by, descriptor }) =>
    !(by === 'person' ? LISTED_FOR_PEOPLE : LISTED).includes(state) && `${descriptor.title} does not list it yet`,
  ({ by, descriptor, kind }) =>
    by === 'editor' &&
    !descriptor.renders?.kinds.some((one) => one === kind) &&
    `${descriptor.title} makes no picture of a ${kind} when asked: give an export of it`,
  ({ by, agent }) =>
    by === 'editor' &&
    !asksForPictures(agent) &&
    'the agent there is older than 0.4, and asks for no pictures: bring it up to date, or give an export',
];

/** Why not, as a clause; null where nothing speaks against it. */
export function whyNot(asked: Asked): string | null {
  for (const rule of rules) {
    const reason = rule(asked);
    if (reason !== false) return reason;
  }
  return null;
}
