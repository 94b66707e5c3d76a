/**
 * Whether an editor will offer an item for a photo, and why not: each condition in one place, in the order in which a person
 * would look. Conditions that the editor does not keep do not hide the item; they are told as cautions.
 */
import { acceptance, honoured } from '../editor/acceptance';
import type { Descriptor, ScopeCondition } from '../editor/descriptor';
import type { System } from '../editor/place-schema';
import { bears, cameraForm, type Named } from './names';
import { readsCamera } from './coverage';

export interface ItemSide {
  title: string;
  kind: string;
  format: string;
  status: string;
  archived: boolean;
  /** bodies that it is for; none for any */ cameras: readonly string[];
  /** of an ICC profile; left out where it is not asked about */ iccClass?: string | null;
  input: string | null;
  result: string | null;
  /** what it makes of any photo, where nobody limited it to that; left out where it is not asked about */ gives?:
    string | null;
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
  /** of a rendered file; null where nobody said */ range: 'SDR' | 'HDR' | null;
  /** null where nobody said */ result: 'color' | 'monochrome' | null;
}
/** `system` null: no station is asked, so nothing is said of places. `placed` null: nothing was put there. `lists`: the titles that the editor lists there; null where it has not told. */
export interface EditorSide {
  descriptor: Descriptor;
  system: System | null;
  placed: { state: string; reason: string } | null;
  lists: readonly string[] | null;
}

/** What brings an item forward, as far as Etagere does it itself: each has a button or a way to where it is done. */
export const cures = [
  'bring back',
  'show shelf',
  'approve',
  'convert',
  'describe editor',
  'roll out',
  'roll out what it needs',
  'bring in',
  'start',
  'restart',
  'take in there',
] as const;
export type Cure = (typeof cures)[number];

export interface Finding {
  code: string;
  /** what does away with it; left out where only people can */ cure?: Cure;
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

/** What brings a placement forward that waits for its editor. */
const remedies: Record<string, Pick<Finding, 'remedy' | 'cure'>> = {
  'restart-due': { remedy: 'Quit the editor and start it.', cure: 'restart' },
  'launch-due': { remedy: 'Start the editor.', cure: 'start' },
  'import-due': { remedy: 'Have the editor take it in, by these steps.', cure: 'take in there' },
  'rescan-due': { remedy: 'Wait a moment, or have it rescan.' },
};

function answerOf(findings: readonly Finding[]): Foretold['answer'] {
  if (findings.some((finding) => finding.hides === true)) return 'no';
  return findings.some((finding) => finding.hides === 'unknown') ? 'unknown' : 'yes';
}

/** Whether an editor keeps to a condition for such an item; to its camera also where it lists the kind by that. */
function keeps({ descriptor }: EditorSide, item: ItemSide, what: ScopeCondition): boolean {
  const answer = acceptance(descriptor, item);
  const accepts = 'accepts' in answer ? answer.accepts : null;
  return honoured(descriptor, accepts).includes(what) || (what === 'camera' && accepts?.meets?.camera === true);
}

/** A condition of the scope: hides where the editor keeps to it, else is a caution. */
const scoped = ({ descriptor }: EditorSide, kept: boolean, words: string, remedy: string): Omit<Finding, 'code'> =>
  kept
    ? { hides: true, words, remedy }
    : { hides: false, words: `${words}; ${descriptor.title} offers it all the same`, remedy };

/** What a photo can be for an item's scope: a rendered file of which nobody said its range is taken for either. */
function inputsOf({ kind, range }: PhotoSide): string[] {
  if (kind === 'camera data') return ['camera data'];
  return range ? [`rendered ${range}`] : ['rendered SDR', 'rendered HDR'];
}

function inputWords({ kind, range }: PhotoSide): string {
  if (kind === 'camera data') return 'camera data';
  return range ? `a rendered file in ${range}` : 'a rendered file';
}

export const conditions: Condition[] = [
  {
    code: 'archived',
    check: (item, _p, editor) => {
      if (!item.archived) return null;
      // what lies there is offered all the same
      return editor.placed
        ? {
            hides: false,
            words: 'It is archived, and still lies there',
            remedy: 'Remove it there, or bring it back.',
            cure: 'bring back',
          }
        : { hides: true, words: 'It is archived', remedy: 'Bring it back first.', cure: 'bring back' };
    },
  },
  {
    code: 'put-away',
    check: (item) =>
      item.away
        ? {
            hides: false,
            words: `Its shelf, ${item.away}, is hidden from your shelves; editors are not affected by that`,
            remedy: 'Bring the shelf back to find it in Etagere.',
            cure: 'show shelf',
          }
        : null,
  },
  {
    code: 'not-approved',
    check: (item, _p, editor) =>
      item.status === 'approved' || editor.placed
        ? null
        : {
            hides: true,
            words: `Its newest version is ${item.status === 'draft' ? 'a draft' : item.status}, and only approved ones are placed`,
            ...(item.status === 'draft'
              ? { remedy: 'Approve it, then roll it out.', cure: 'approve' }
              : { remedy: 'Take an approved version.' }),
          },
  },
  {
    code: 'format',
    check: (item, _p, editor) => {
      const answer = acceptance(editor.descriptor, item);
      return 'reason' in answer
        ? {
            hides: true,
            words: answer.reason,
            remedy:
              item.kind === 'camera-profile'
                ? 'Make a look or an ICC profile of it, if that serves.'
                : 'Choose another editor, or convert the item.',
            ...(item.kind === 'preset' ? { cure: 'convert' as const } : {}),
          }
        : null;
    },
  },
  {
    code: 'system',
    check: (item, _p, editor) => {
      const answer = acceptance(editor.descriptor, item);
      return editor.system && 'accepts' in answer && !editor.descriptor.places[answer.accepts.place]?.[editor.system]
        ? {
            hides: true,
            words: `${editor.descriptor.title} has no place for it on ${editor.system}`,
            remedy: 'Place it on a station with another system.',
          }
        : null;
    },
  },
  {
    code: 'photo-camera',
    check: (_i, photo, editor) => {
      if (photo.kind === 'rendered') return null;
      const answer = readsCamera({ cameras: editor.descriptor.cameras ?? null }, photo.camera);
      const camera = photo.camera.model || 'camera';
      if (answer === 'no')
        return {
          hides: true,
          words: `${editor.descriptor.title} does not read the ${camera}: the photo itself stays an empty card`,
          remedy: 'Use a version that has the camera in its list, or a rendered file of the photo.',
        };
      if (answer === 'unknown')
        return {
          hides: 'unknown',
          words: `Nobody has said whether ${editor.descriptor.title} reads the ${camera}`,
          remedy: 'Add its cameras to its descriptor.',
          cure: 'describe editor',
        };
      return null;
    },
  },
  {
    code: 'profile-rendered',
    check: (item, photo) =>
      item.kind === 'camera-profile' && photo.kind === 'rendered'
        ? {
            hides: true,
            words: 'A camera profile needs camera data; in a rendered file the camera has put its own in',
            remedy: 'Choose the camera’s own file of this photo.',
          }
        : null,
  },
  {
    code: 'scope-camera',
    check: (item, photo, editor) => {
      if (!item.cameras.length) return null;
      const own: Named = {
        maker: photo.camera.maker,
        model: photo.body,
        names: photo.body === photo.camera.model ? photo.camera.names : [],
      };
      return item.cameras.some((c) => bears(own, cameraForm, c))
        ? null
        : scoped(
            editor,
            keeps(editor, item, 'camera'),
            `It is for the ${item.cameras.join(', ')}; the photo is of the ${photo.body || 'camera that its file does not name'}`,
            'Take one made for this camera, or widen the item’s scope.',
          );
    },
  },
  {
    code: 'scope-input',
    check: (item, photo, editor) =>
      !item.input || inputsOf(photo).includes(item.input)
        ? null
        : scoped(
            editor,
            keeps(editor, item, 'input'),
            `It is for ${item.input}; the photo is ${inputWords(photo)}`,
            'Take a variant for such files, or widen the item’s scope.',
          ),
  },
  {
    code: 'scope-result',
    check: (item, photo, editor) => {
      const result = item.result ?? item.gives ?? null;
      if (!result || !photo.result || result === photo.result) return null;
      return scoped(
        editor,
        // what it makes of a photo is not written into its file: no editor leaves it out for that
        item.result !== null && keeps(editor, item, 'result'),
        `It gives ${result}; the photo is worked in ${photo.result}`,
        'Take one for such photos.',
      );
    },
  },
  {
    code: 'needs',
    check: (item, _p, editor) => {
      const named = (list: readonly { name: string }[]): string => list.map((n) => `“${n.name}”`).join(', ');
      const unheld = item.needs.filter((n) => !n.held);
      const absent = editor.system
        ? item.needs.filter((n) => n.held && editor.lists && !editor.lists.includes(n.name))
        : [];
      if (unheld.length)
        return {
          hides: false,
          words: `It refers to ${named(unheld)}, which is not held: it will do less than it should`,
          remedy: 'Take in what it needs, and roll both out.',
          cure: 'bring in',
        };
      if (absent.length)
        return {
          hides: false,
          words: `It refers to ${named(absent)}, which ${editor.descriptor.title} does not list there: it will do less than it should`,
          remedy: 'Roll that out too.',
          cure: 'roll out what it needs',
        };
      return null;
    },
  },
  {
    code: 'photo-open',
    check: (item, _p, editor) => {
      const answer = acceptance(editor.descriptor, item);
      if (!editor.placed || !('accepts' in answer) || answer.accepts.sees !== 'reopen') return null;
      return {
        hides: false,
        words: `${editor.descriptor.title} looks for it when a photo is opened: one that was open before shows it later`,
        remedy: 'Close the photo and open it again.',
      };
    },
  },
  {
    code: 'placed',
    check: (item, _p, editor) => {
      if (!editor.system) return null;
      if (!editor.placed)
        return item.status !== 'approved'
          ? null
          : { hides: true, words: 'It is not placed there', remedy: 'Roll it out to this station.', cure: 'roll out' };
      return editor.placed.state === 'listed'
        ? null
        : {
            hides: true,
            words: editor.placed.reason,
            ...(remedies[editor.placed.state] ?? { remedy: 'Open the station to see what lies there.' }),
          };
    },
  },
];

/**
 * What need not be said where something else is said already: it would tell the same twice, or give advice that cannot help.
 * An editor that takes nothing of the kind has no more to be said of it; a profile that a rendered file cannot take is not
 * for another camera besides.
 */
const saidAlready: Record<string, readonly string[]> = {
  placed: ['format', 'system', 'archived', 'not-approved'],
  system: ['format'],
  'not-approved': ['format', 'archived'],
  'scope-input': ['profile-rendered'],
  'scope-camera': ['profile-rendered', 'photo-camera'],
  'scope-result': ['profile-rendered'],
};

/** All conditions that do not hold, and the answer: yes with cautions only, unknown where nobody knows and nothing else hides it. */
export function foretell(item: ItemSide, photo: PhotoSide, editor: EditorSide): Foretold {
  const findings = conditions.flatMap((condition) => {
    const finding = condition.check(item, photo, editor);
    return finding ? [{ code: condition.code, ...finding }] : [];
  });
  const found = new Set(findings.map((finding) => finding.code));
  const shown = findings.filter(({ code }) => !(saidAlready[code] ?? []).some((other) => found.has(other)));
  return {
    answer: answerOf(shown),
    findings: shown,
  };
}
