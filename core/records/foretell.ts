/**
 * Whether an editor will offer an item for a photo, and why not: each condition in one place, in the order in which a person
 * would look. Conditions that the editor does not keep do not hide the item; they are told as cautions.
 */
import { acceptance } from '../editor/acceptance';
import type { Descriptor, ScopeCondition, System } from '../editor/descriptor';
import { bears, cameraForm, type Named } from './names';
import { readsCamera } from './coverage';

export interface ItemSide {
  title: string;
  kind: string;
  format: string;
  status: string;
  archived: boolean;
  /** bodies that it is for; none for any */ cameras: readonly string[];
  input: string | null;
  result: string | null;
  /** the shelf that it stands on, where who asks has put that away; '' else */ away: string;
  /** looks and profiles that it refers to by name, and whether the studio holds them */ needs: readonly {
    name: string;
    held: boolean;
  }[];
}
export interface PhotoSide {
  name: string;
  /** as its file names it */ camera: Named;
  /** with its conversion, "Alder, infrared" */ body: string;
  kind: 'camera data' | 'rendered';
  /** null where nobody said */ result: 'color' | 'monochrome' | null;
}
/** `system` null: no station is asked, so nothing is said of places. `placed` null: nothing was put there. `lists`: the titles that the editor lists there; null where it has not told. */
export interface EditorSide {
  descriptor: Descriptor;
  system: System | null;
  placed: { state: string; reason: string } | null;
  lists: readonly string[] | null;
}

export interface Finding {
  code: string;
  /** does it keep the item from being offered? */ hides: boolean | 'unknown';
  words: string;
  remedy: string;
}
export interface Foretold {
  answer: 'yes' | 'no' | 'unknown';
  findings: Finding[];
}

interface Condition {
  code: string;
  /** null where the condition holds */ check: (
    i: ItemSide,
    p: PhotoSide,
    e: EditorSide,
  ) => Omit<Finding, 'code'> | null;
}

/** A condition of the scope: hides where the editor keeps to it, else is a caution. */
const scoped = (e: EditorSide, what: ScopeCondition, words: string, remedy: string): Omit<Finding, 'code'> => {
  const kept = e.descriptor.honours?.includes(what);
  return kept
    ? { hides: true, words, remedy }
    : { hides: false, words: `${words}; ${e.descriptor.title} offers it all the same`, remedy };
};

export const conditions: Condition[] = [
  {
    code: 'archived',
    check: (i) => (i.archived ? { hides: true, words: 'It is archived', remedy: 'Bring it back first.' } : null),
  },
  {
    code: 'put-away',
    check: (i) =>
      i.away
        ? {
            hides: false,
            words: `Its shelf, ${i.away}, is put away from your shelves; editors are not told of that`,
            remedy: 'Bring the shelf back to find it in Etagere.',
          }
        : null,
  },
  {
    code: 'not-approved',
    check: (i, _p, e) =>
      i.status === 'approved' || e.placed
        ? null
        : {
            hides: true,
            words: `Its newest version is ${i.status === 'draft' ? 'a draft' : i.status}, and only approved ones are placed`,
            remedy: i.status === 'draft' ? 'Approve it, then roll it out.' : 'Take an approved version.',
          },
  },
  {
    code: 'format',
    check: (i, _p, e) => {
      const a = acceptance(e.descriptor, i);
      return 'reason' in a
        ? {
            hides: true,
            words: a.reason,
            remedy:
              i.kind === 'camera-profile'
                ? 'Make a look or an ICC profile of it, if that serves.'
                : 'Choose another editor, or convert the item.',
          }
        : null;
    },
  },
  {
    code: 'system',
    check: (i, _p, e) => {
      const a = acceptance(e.descriptor, i);
      return e.system && 'accepts' in a && !e.descriptor.places[a.accepts.place]?.[e.system]
        ? {
            hides: true,
            words: `${e.descriptor.title} has no place for it on ${e.system}`,
            remedy: 'Place it on a station with another system.',
          }
        : null;
    },
  },
  {
    code: 'photo-camera',
    check: (_i, p, e) => {
      if (p.kind === 'rendered') return null;
      const answer = readsCamera({ cameras: e.descriptor.cameras ?? null }, p.camera);
      const camera = p.camera.model || 'camera';
      return answer === 'no'
        ? {
            hides: true,
            words: `${e.descriptor.title} does not read the ${camera}: the photo itself stays an empty card`,
            remedy: 'Use a version that has the camera in its list, or a rendered file of the photo.',
          }
        : answer === 'unknown'
          ? {
              hides: 'unknown',
              words: `Nobody has said whether ${e.descriptor.title} reads the ${camera}`,
              remedy: 'Add its cameras to its descriptor.',
            }
          : null;
    },
  },
  {
    code: 'profile-rendered',
    check: (i, p) =>
      i.kind === 'camera-profile' && p.kind === 'rendered'
        ? {
            hides: true,
            words: 'A camera profile needs camera data; in a rendered file the camera has put its own in',
            remedy: 'Choose the camera’s own file of this photo.',
          }
        : null,
  },
  {
    code: 'scope-camera',
    check: (i, p, e) => {
      if (!i.cameras.length) return null;
      const own: Named = {
        maker: p.camera.maker,
        model: p.body,
        names: p.body === p.camera.model ? p.camera.names : [],
      };
      return i.cameras.some((c) => bears(own, cameraForm, c))
        ? null
        : scoped(
            e,
            'camera',
            `It is for the ${i.cameras.join(', ')}; the photo is of the ${p.body || 'camera that its file does not name'}`,
            'Take one made for this camera, or widen the item’s scope.',
          );
    },
  },
  {
    code: 'scope-input',
    check: (i, p, e) =>
      !i.input || i.input === (p.kind === 'rendered' ? 'rendered SDR' : 'camera data')
        ? null
        : scoped(
            e,
            'input',
            `It is for ${i.input}; the photo is ${p.kind === 'rendered' ? 'a rendered file' : 'camera data'}`,
            'Take its variant for such files, or widen the item’s scope.',
          ),
  },
  {
    code: 'scope-result',
    check: (i, p, e) =>
      !i.result || !p.result || i.result === p.result
        ? null
        : scoped(e, 'result', `It gives ${i.result}; the photo is worked in ${p.result}`, 'Take one for such photos.'),
  },
  {
    code: 'needs',
    check: (i, _p, e) => {
      const named = (list: readonly { name: string }[]): string => list.map((n) => `“${n.name}”`).join(', ');
      const unheld = i.needs.filter((n) => !n.held);
      const absent = e.system ? i.needs.filter((n) => n.held && e.lists && !e.lists.includes(n.name)) : [];
      return unheld.length
        ? {
            hides: false,
            words: `It refers to ${named(unheld)}, which is not held: it will do less than it should`,
            remedy: 'Take in what it needs, and roll both out.',
          }
        : absent.length
          ? {
              hides: false,
              words: `It refers to ${named(absent)}, which ${e.descriptor.title} does not list there: it will do less than it should`,
              remedy: 'Roll that out too.',
            }
          : null;
    },
  },
  {
    code: 'placed',
    check: (i, _p, e) => {
      if (!e.system) return null;
      if (!e.placed)
        return i.status !== 'approved'
          ? null
          : { hides: true, words: 'It is not placed there', remedy: 'Roll it out to this station.' };
      const due = ['restart-due', 'launch-due', 'rescan-due'].includes(e.placed.state);
      return e.placed.state === 'listed'
        ? null
        : {
            hides: true,
            words: e.placed.reason,
            remedy: due
              ? e.placed.state === 'restart-due'
                ? 'Quit the editor and start it.'
                : e.placed.state === 'launch-due'
                  ? 'Start the editor.'
                  : 'Wait a moment, or have it rescan.'
              : 'Open the station to see what lies there.',
          };
    },
  },
];

/** All conditions that do not hold, and the answer: yes with cautions only, unknown where nobody knows and nothing else hides it. */
export function foretell(item: ItemSide, photo: PhotoSide, editor: EditorSide): Foretold {
  const findings = conditions.flatMap((c) => {
    const f = c.check(item, photo, editor);
    return f ? [{ code: c.code, ...f }] : [];
  });
  // an editor that takes nothing of the kind has no more to be said of it
  const shown = findings.some((f) => f.code === 'format')
    ? findings.filter((f) => !['placed', 'system', 'not-approved'].includes(f.code))
    : findings;
  return {
    answer: shown.some((f) => f.hides === true) ? 'no' : shown.some((f) => f.hides === 'unknown') ? 'unknown' : 'yes',
    findings: shown,
  };
}
