/** Why a folder of photos looks empty in an editor: its photos, counted by camera, against what each editor reads. */
import { bears, cameraForm, type Named } from './names';
import { readsCamera, type Reads, type Support } from './coverage';

/** What a photo's file says of itself. */
export interface PhotoSeen {
  maker: string;
  camera: string;
  /** the name that a DNG gives the model everywhere */ unique: string;
  kind: 'camera data' | 'rendered';
  /** how many say the same */ n: number;
}
export interface PhotoGroup {
  camera: string;
  kind: PhotoSeen['kind'];
  n: number;
  answers: { key: string; title: string; answer: Reads; reason: string; cures: string[] }[];
}
/** `stations`: how many of them have this version. */
export interface EditorHere extends Support {
  editor: string;
  stations: number;
}

const times = (n: number): string => (n === 1 ? '1 photo' : `${n.toLocaleString('en')} photos`);

/** The camera in the words of the studio's list, where it is on it. */
const nameOf = (photoSeen: PhotoSeen, own: readonly Named[]): Named =>
  own.find((c) => [photoSeen.unique, photoSeen.camera].some((n) => n && bears(c, cameraForm, n))) ?? {
    maker: photoSeen.maker,
    model: photoSeen.camera || photoSeen.unique,
    names: photoSeen.unique ? [photoSeen.unique] : [],
  };

/** A group for each camera and kind, the largest first; each editor's answer with what would cure a photo that does not show. */
export function explainPhotos(
  photos: readonly PhotoSeen[],
  editors: readonly EditorHere[],
  own: readonly Named[] = [],
): PhotoGroup[] {
  const groups = new Map<string, { thing: Named; kind: PhotoSeen['kind']; n: number }>();
  for (const photoSeen of photos) {
    const thing = nameOf(photoSeen, own);
    const key = `${photoSeen.kind} ${cameraForm(thing.model, thing.maker)}`;
    const group = groups.get(key);
    if (group) group.n += photoSeen.n;
    else groups.set(key, { thing, kind: photoSeen.kind, n: photoSeen.n });
  }
  return [...groups.values()]
    .sort((a, b) => b.n - a.n)
    .map(({ thing, kind, n: count }) => ({
      camera: thing.model,
      kind,
      n: count,
      answers: editors.map((editorHere) => {
        if (kind === 'rendered')
          return {
            key: editorHere.key,
            title: editorHere.title,
            answer: 'yes' as const,
            reason: 'rendered files show whatever camera they are from',
            cures: [],
          };
        const { title } = editorHere;
        const all = editorHere.cameras === 'all';
        const unnamed: Reads = all ? 'yes' : 'unknown';
        const answer: Reads = thing.model ? readsCamera(editorHere, thing) : unnamed;
        const reasons: Record<Reads, string> = {
          yes: all ? `${title} reads the camera data of all cameras` : `${title} has the ${thing.model} in its list`,
          no: `${times(count)} of the ${thing.model} ${count === 1 ? 'is' : 'are'} not supported here: ${title} has no such camera in its list`,
          unknown: thing.model
            ? `the descriptor of ${title} does not say which cameras it reads`
            : 'the files name no camera',
        };
        const reason = reasons[answer];
        return {
          key: editorHere.key,
          title: editorHere.title,
          answer,
          reason,
          cures: answer === 'no' ? cures(editorHere, thing, editors) : [],
        };
      }),
    }));
}

/** What would make them show, the nearest first. */
function cures(editorHere: EditorHere, camera: Named, editors: readonly EditorHere[]): string[] {
  const able = editors.filter((x) => x.key !== editorHere.key && readsCamera(x, camera) === 'yes');
  const where = (editorHere: EditorHere): string =>
    editorHere.stations === 0
      ? ', which no station has yet'
      : `, which ${editorHere.stations} ${editorHere.stations === 1 ? 'station has' : 'stations have'}`;
  return [
    ...able.filter((x) => x.editor === editorHere.editor).map((x) => `Use ${x.title}${where(x)}: it reads them.`),
    ...able.filter((x) => x.editor !== editorHere.editor).map((x) => `Open them in ${x.title}${where(x)}.`),
    ...(able.length ? [] : [`No editor here reads the ${camera.model}: ask for it.`]),
    'Hand over rendered files (TIFF, JPEG) of them; those show.',
  ];
}
