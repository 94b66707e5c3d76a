/** What a person does at a station where no agent is: steps in order, with exact paths, and what to look at afterwards. */
import type { Descriptor } from '../editor/descriptor';
import { editorKey } from '../editor/descriptor';
import type { System } from '../editor/place-schema';
import { distinct, groupBy } from '../lists';
import { fileNameOf } from '../paths';
import { isEntryPath } from '../sync/bundle';
import { nativePath, reachWords } from './places';

/** One file of a rollout at the station. */
export interface SheetFile {
  /** id@version */ editor: string;
  path: string;
  does: 'put' | 'remove';
  /** whether another file goes under that name */ over: boolean;
  /** of the item; null for a list that the editor reads */ title: string | null;
}

export interface FolderSteps {
  /** as it is typed on the system */ folder: string;
  reach: string;
  put: { name: string; over: boolean }[];
  remove: string[];
}
export interface EditorSheet {
  title: string;
  /** before anything is touched */ before: string;
  folders: FolderSteps[];
  /** so that the editor sees it */ after: string[];
  /** what is to be looked at, with a box to tick */ checks: string[];
  /** what cannot be done by hand, and why */ cannot: string[];
  notes: string;
}

const folderOf = (path: string): string => path.slice(0, path.lastIndexOf('/'));

function folderSteps(files: readonly SheetFile[], system: System): FolderSteps[] {
  return [...groupBy(files, ({ path }) => folderOf(path))].map(([folder, own]) => ({
    folder: nativePath(folder, system),
    reach: reachWords(folder, system),
    put: own.filter(({ does }) => does === 'put').map(({ path, over }) => ({ name: fileNameOf(path), over })),
    remove: own.filter(({ does }) => does === 'remove').map(({ path }) => fileNameOf(path)),
  }));
}

function afterWords({ title, sees, accepts, kind }: Descriptor, files: readonly SheetFile[]): string[] {
  if (kind === 'card') return ['Take the card out by the system’s own command, and put it into the camera.'];
  const imports = accepts.flatMap(({ import: steps, extension }) =>
    steps && files.some(({ path, does }) => does === 'put' && path.endsWith(extension)) ? steps : [],
  );
  const reopens = accepts.some(
    ({ sees: when, extension }) =>
      when === 'reopen' && extension !== '' && files.some(({ path }) => path.endsWith(extension)),
  );
  return [
    sees === 'launch' ? `Start ${title}.` : `${title} sees it by itself within a moment; it need not be started anew.`,
    ...imports,
    ...(reopens ? [`Photos that are open in ${title} are closed and opened again.`] : []),
  ];
}

/** Each title once: a check for what is listed now, and one for what is not any more. */
function checksOf({ title, kind }: Descriptor, files: readonly SheetFile[]): string[] {
  const titlesOf = (does: SheetFile['does']): string[] =>
    distinct(files.flatMap((file) => (file.does === does && file.title ? [file.title] : [])));
  const lists = kind === 'card' ? 'The camera lists' : `${title} lists`;
  return [
    ...titlesOf('put').map((item) => `${lists} ${item}.`),
    ...titlesOf('remove').map((item) => `${lists} ${item} no longer.`),
  ];
}

function editorSheet(descriptor: Descriptor, all: readonly SheetFile[], system: System): EditorSheet {
  const { title, kind, sees, notes } = descriptor;
  const files = all.filter(({ path }) => !isEntryPath(path));
  const entries = all.filter(({ path }) => isEntryPath(path));
  const quits = kind !== 'card' && sees === 'launch';
  return {
    title,
    before: quits ? `Quit ${title}, if it runs.` : '',
    folders: folderSteps(files, system),
    after: files.length ? afterWords(descriptor, files) : [],
    checks: checksOf(descriptor, files),
    cannot: entries.map(
      ({ title: item, path }) =>
        `${item ?? fileNameOf(path)}: ${title} keeps it inside one file of its own, which only an agent writes`,
    ),
    notes: notes ?? '',
  };
}

/** The sheet of a station: one part an editor, in the order in which the files come. */
export function sheetOf(
  descriptors: readonly Descriptor[],
  files: readonly SheetFile[],
  system: System,
): EditorSheet[] {
  return [...groupBy(files, ({ editor }) => editor)].flatMap(([key, own]) => {
    const descriptor = descriptors.find((one) => editorKey(one) === key);
    return descriptor ? [editorSheet(descriptor, own, system)] : [];
  });
}
