/** Marlstone, editions 3 and 4: reads its hidden folder once, at launch. Looks only as .mlook; headings from inside the file. */
import { createHash } from 'node:crypto';
import { copyFileSync, existsSync, mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { strFromU8, unzipSync } from 'fflate';
import { SaxesParser } from 'saxes';
import { adjust } from '../adjust';
import { blueFastest, printer, through, type Order, type Table, type Treatment } from '../darkroom';
import { favorites, favoritesFirst, names } from '../favorites';
import { photos, type Card } from '../photos';
import { bodies, bodyOf, folderOf, iccInput, titled } from '../profiles';
import { files, live, options, read, take, type Contents, type Listed } from '../program';
import { presetIn } from './steps';

const edition = options.edition === '3' ? 3 : 4;
const most = edition === 3 ? 33 : 48;
/** Whose camera data this edition reads. */
const reads = edition === 3 ? ['Perrin Alder', 'Ondine 40'] : ['Perrin Alder', 'Ondine 40', 'Corvane Ley'];
/** Looks that say of themselves that they are for one kind of file. */
const only = new Map<string, string>();
const home = `${options.system === 'macos' ? 'Library/Application Support' : 'AppData/Roaming'}/.marlstone-${edition}`;

/** Edition 3 takes presets only from here, when somebody says so, and keeps them where nobody else looks. */
const TRAY = 'Marlstone Tray';
const kept = `${home}/kept`;

/** The table inside a look, counted and checked: one cube-shaped array of finite numbers, blue fastest. */
function tableOf(xml: string): Table {
  const parser = new SaxesParser({ xmlns: true });
  let dims: number[] = [];
  let text = '';
  let inTable = false;
  let inArray = false;
  parser.on('error', (error) => {
    throw new Error(`table.clf is broken: ${error.message.slice(0, 80)}`);
  });
  parser.on('opentag', (saxesTagNS) => {
    if (saxesTagNS.local === 'LUT3D') inTable = true;
    if (inTable && saxesTagNS.local === 'Array') {
      inArray = true;
      dims = String((saxesTagNS.attributes.dim as { value: string } | undefined)?.value ?? '')
        .split(' ')
        .map(Number);
    }
  });
  parser.on('text', (part) => {
    if (inArray) text += part;
  });
  parser.on('closetag', (saxesTagNS) => {
    if (saxesTagNS.local === 'Array') inArray = false;
    if (saxesTagNS.local === 'LUT3D') inTable = false;
  });
  parser.write(xml).close();
  const [n = 0, sideGreen, sideBlue, channels] = dims;
  if (n !== sideGreen || n !== sideBlue || channels !== 3)
    throw new Error('table.clf holds no table of three equal sides');
  if (n < 2 || n > most) throw new Error(`a table of ${n} points; Marlstone ${edition} takes 2 to ${most}`);
  const numbers = text.trim().split(/\s+/).map(Number);
  if (numbers.length !== n ** 3 * 3 || numbers.some((v) => !Number.isFinite(v)))
    throw new Error(`the table should hold ${n ** 3 * 3} numbers`);
  return { size: n, rows: numbers, at: blueFastest(n) };
}

interface Look {
  about: { title: string; headings?: string[]; encoding?: string; scope?: { input?: string | null } };
  table: Table;
}

function lookIn(path: string): Look {
  if (/\.cube$/i.test(path)) throw new Error('Marlstone reads looks only as .mlook; a .cube file is passed over');
  if (!/\.mlook$/i.test(path)) throw new Error('no file that Marlstone reads');
  let members: Record<string, Uint8Array>;
  try {
    members = unzipSync(read(path));
  } catch {
    throw new Error('the .mlook is no ZIP, or is cut off');
  }
  if (!members['about.json'] || !members['table.clf']) throw new Error('about.json or table.clf is missing inside');
  const about = JSON.parse(strFromU8(members['about.json'])) as {
    title?: string;
    headings?: string[];
    encoding?: string;
    scope?: { input?: string | null };
  };
  if (!about.title) throw new Error('about.json has no title');
  if (about.encoding !== 'sRGB display') throw new Error(`tables for ${String(about.encoding)} are not understood`);
  return { about: { ...about, title: about.title }, table: tableOf(strFromU8(members['table.clf'])) };
}

function look(path: string): Omit<Listed, 'path'> {
  const { about, table } = lookIn(path);
  // looks work on what is seen: sRGB values as they stand
  has.set(path, { develop: (color) => through(table, color) });
  if (about.scope?.input) only.set(path, about.scope.input);
  return { title: about.title, kind: 'look', headings: about.headings ?? [] };
}

/** By path, what it has read at launch and can put on a picture. */
const has = new Map<string, Treatment>();

/** Edition 3 keeps what came through its tray elsewhere, under the same name. */
function treat(path: string): Treatment {
  const name = path.slice(path.lastIndexOf('/') + 1);
  const known = has.get(path.startsWith(`${TRAY}/`) ? `${kept}/${name}` : path);
  if (!known) throw new Error(`Marlstone ${edition} has nothing at ${path}`);
  return known;
}

/** `open = …`, `put = …` and `save = …`, a line each. */
function order(text: string): Order {
  const said = (key: string): string => new RegExp(`^${key} = (.*)$`, 'm').exec(text)?.[1]?.trim() ?? '';
  return { open: said('open'), put: said('put'), save: said('save') };
}

const print = printer({ folder: `${home}/proofs`, order: '.job', fault: '.fault.txt', read: order, treat });

function preset(path: string): Omit<Listed, 'path'> {
  const { title, headings, adjustments } = presetIn(read(path).toString('utf8'), edition);
  has.set(path, { develop: adjust(adjustments), corners: adjustments.corners });
  return { title: title || path, kind: 'preset', headings };
}

const profileFolder = `${home}/profiles`;

/** Edition 4 reads ICC input profiles, each in the folder of the camera that it is for. */
function profile(path: string): Omit<Listed, 'path'> {
  if (!/\.icc$/i.test(path)) throw new Error('no profile that Marlstone reads');
  const { title } = iccInput(read(path));
  if (!folderOf(path, profileFolder)) throw new Error('it lies in the folder of no camera');
  return titled(path, title, profileFolder);
}

/** A camera that is not in the list gives an empty card; a look for another kind of file is left out. */
function cards(listed: readonly Listed[], first: readonly string[]): Card[] {
  const known = bodies(`${home}/bodies.txt`);
  return photos('Pictures').map((photo): Card => {
    const { path, camera, developed } = photo;
    if (!developed && !reads.includes(camera))
      return {
        path,
        card: 'empty',
        reason: `${camera || 'this camera'} is not supported by Marlstone ${edition}`,
        offers: [],
      };
    const kind = developed ? 'rendered SDR' : 'camera data';
    return {
      path,
      card: 'shown',
      reason: '',
      offers: favoritesFirst(
        listed
          .filter((one) =>
            one.kind === 'camera-profile'
              ? !developed && folderOf(one.path, profileFolder) === bodyOf(photo, known)
              : (only.get(one.path) ?? kind) === kind,
          )
          .map((one) => one.path),
        first,
      ),
    };
  });
}

const favoritesFile = `${home}/favorites.json`;

/** Favorites of edition 4 are told by the SHA-256 of what they are, wherever it lies. */
function favoritesOf(listed: readonly Listed[]): Required<Pick<Contents, 'favorites' | 'refused'>> {
  if (edition === 3 || !existsSync(join(options.root, favoritesFile))) return { favorites: [], refused: [] };
  try {
    const chosen = names(JSON.parse(read(favoritesFile).toString('utf8')));
    const hashOf = new Map(
      listed.map(({ path }) => [path, createHash('sha256').update(read(path)).digest('hex')] as const),
    );
    return favorites(
      chosen.map((name) => ({ name, list: favoritesFile })),
      listed,
      (one, { name }) => hashOf.get(one.path) === name,
    );
  } catch (error) {
    return { favorites: [], refused: [{ path: favoritesFile, reason: (error as Error).message }] };
  }
}

/** What was taken in, with what it holds. */
const keptPreset = (path: string): Omit<Listed, 'path'> => ({ ...preset(path), sha256: hashOf(path) });

const hashOf = (path: string): string => createHash('sha256').update(read(path)).digest('hex');

/** What waits in the tray and is a preset goes into the store; another of its name goes out. */
function takeIn(): void {
  mkdirSync(join(options.root, kept), { recursive: true });
  for (const path of files(TRAY)) {
    try {
      preset(path);
      copyFileSync(join(options.root, path), join(options.root, kept, path.slice(path.lastIndexOf('/') + 1)));
    } catch {
      // told as refused when it looks again
    }
  }
}

/** What lies in the tray and could not be taken in. */
const refusedInTray = () => take(files(TRAY), preset).refused;

live(
  `${home}/catalogue.json`,
  `${home}/refused.log`,
  () => {
    const contents = take(files(`${home}/looks`), look);
    const presets =
      edition === 3
        ? { ...take(files(kept), keptPreset), refused: refusedInTray() }
        : take(files(`${home}/presets`), preset);
    const profiles = take(edition === 4 ? files(profileFolder) : [], profile);
    const listed = [...contents.listed, ...presets.listed, ...profiles.listed];
    const first = favoritesOf([...contents.listed, ...presets.listed]);
    return {
      listed,
      refused: [...contents.refused, ...presets.refused, ...profiles.refused, ...first.refused],
      favorites: first.favorites,
      cards: cards(listed, first.favorites),
    };
  },
  edition === 3 ? { takeIn, print } : { print },
);
