/** What should lie where by standing orders, held against what was put there: in step, due for an update, or missing. */
import { acceptance, isUnusedAmong, type ThingTaken } from '../editor/acceptance';
import type { Accepts } from '../editor/accepts';
import { editorKey, type Descriptor } from '../editor/descriptor';
import type { System } from '../editor/place-schema';
import type { UsedCamera } from '../records/used-there';
import { groupBy } from '../lists';
import { resolveTemplate } from './place-templates';

/** The newest approved version of one form of an item that is followed. */
export interface Followed {
  item: string;
  /** '' for the plain form */ variant: string;
  version: string;
  number: number;
  title: string;
  thing: ThingTaken;
}
/** An editor at a station. */
export interface EditorAt {
  station: string;
  system: System;
  descriptor: Descriptor;
  /** cameras that are used there; none where nobody has said */ cameras: readonly UsedCamera[];
}
/** A version that was put there for an editor. */
export interface PutThere {
  station: string;
  editor: string;
  item: string;
  variant: string;
  number: number;
  path: string;
}

export interface Standing {
  station: string;
  editor: string;
  followed: Followed;
  is: 'in-step' | 'update-due' | 'missing';
  /** the number of the version that lies there; null where none does */ there: number | null;
}

const keyOf = (...parts: string[]): string => parts.join('\n');

/** What an editor takes of what is followed, and how: the same at every station, so that it is asked once. */
type Taken = readonly { followed: Followed; accepts: Accepts }[];

const takenBy = (descriptor: Descriptor, followed: readonly Followed[]): Taken =>
  followed.flatMap((one) => {
    const answer = acceptance(descriptor, one.thing);
    return 'accepts' in answer ? [{ followed: one, accepts: answer.accepts }] : [];
  });

/** The folder or list where it belongs at a station; null where the system has none, or its camera is not used there. */
function placeAt({ descriptor, system, cameras }: EditorAt, { followed, accepts }: Taken[number]): string | null {
  const template = descriptor.places[accepts.place]?.[system];
  if (!template || isUnusedAmong(accepts, cameras, followed.thing.cameras)) return null;
  return resolveTemplate(template, system);
}

/** Each followed form at each editor that takes it, in the order of the editors. */
export function standingOf(
  followed: readonly Followed[],
  editors: readonly EditorAt[],
  put: readonly PutThere[],
): Standing[] {
  const lying = groupBy(put, ({ station, item, variant }) => keyOf(station, item, variant));
  const taken = new Map<string, Taken>();
  return editors.flatMap((at) => {
    const editor = editorKey(at.descriptor);
    const all = taken.get(editor) ?? takenBy(at.descriptor, followed);
    taken.set(editor, all);
    return all.flatMap((one): Standing[] => {
      const place = placeAt(at, one);
      if (place === null) return [];
      const { item, variant, number } = one.followed;
      const forms = lying.get(keyOf(at.station, item, variant)) ?? [];
      // a folder that two editors share has one file for both
      const found =
        forms.find((form) => form.editor === editor) ?? forms.find(({ path }) => path.startsWith(`${place}/`));
      const there = found?.number ?? null;
      return [{ station: at.station, editor, followed: one.followed, is: stateOf(there, number), there }];
    });
  });
}

function stateOf(there: number | null, newest: number): Standing['is'] {
  if (there === null) return 'missing';
  return there < newest ? 'update-due' : 'in-step';
}

export interface DueAt {
  station: string;
  missing: number;
  updates: number;
  inStep: number;
}

/** How many there are of each, by station. */
export function countsByStation(standing: readonly Standing[]): Map<string, DueAt> {
  const counts = new Map<string, DueAt>();
  for (const { station, is } of standing) {
    const count = counts.get(station) ?? { station, missing: 0, updates: 0, inStep: 0 };
    counts.set(station, count);
    if (is === 'missing') count.missing++;
    else if (is === 'update-due') count.updates++;
    else count.inStep++;
  }
  return counts;
}
