/** Oxbow 2: a visible folder at any depth, read at launch and again whenever something in it changes. Headings are folders. */
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { adjust } from '../adjust';
import { inTurn, REC2020, type Develop } from '../color';
import { inLight, printer, redFastest, tableOver, type Order, type Treatment } from '../darkroom';
import { favorites, favoritesFirst } from '../favorites';
import { calibrationOf, lensDatabase, type Lenses } from '../lenses';
import { begin, rulesInFile, type OpeningRule } from '../opening';
import { photos, type Card, type Photo } from '../photos';
import { bodies, bodyOf, dngProfile, folderOf, titled } from '../profiles';
import { files, live, modified, options, read, take, type Listed } from '../program';
import { isList, LIST, look, LOOKS, named, preset, PRESETS, table } from './readers';
import { runIn } from './run';

const configs: Record<string, string> = {
  linux: '.config/oxbow',
  macos: 'Library/Application Support/Oxbow',
  windows: 'AppData/Roaming/Oxbow',
};
const config = configs[options.system] ?? configs.windows;

/** Looks work on linear light of Rec. 2020, on a scale of stops from nine below middle gray to four above it. */
const STOPS = 13;
const LOWEST = -9;
const stop = (value: number): number => (Math.log2(Math.max(value, 1e-12) / 0.18) - LOWEST) / STOPS;
const lightOf = (place: number): number => 0.18 * 2 ** (place * STOPS + LOWEST);

/** A look on linear light; a preset may call it for a share of it alone. */
function lookAt(path: string, share = 1): Develop {
  const { size, dimensions, numbers } = table(path);
  if (dimensions !== 3) throw new Error('Oxbow prints with tables of three dimensions alone');
  const cube = { size, rows: numbers, at: redFastest(size) };
  return inLight(tableOver(cube, REC2020, { to: stop, from: lightOf }, share));
}

/** The look that a preset calls by its name. */
function lookCalled(name: string): string {
  const path = files(LOOKS).find((one) => !isList(one) && named(one, LOOKS).title === name);
  if (!path) throw new Error(`it calls the look ${name}, which is not there`);
  return path;
}

/** A preset works first, and the look that it calls on what came of it. */
function presetAt(path: string): Treatment {
  const { adjustments, table: called } = runIn(read(path).toString('utf8'));
  const own = adjust(adjustments);
  const develop = called ? inTurn(own, lookAt(lookCalled(called.name), called.share)) : own;
  return { develop, corners: adjustments.corners };
}

function treat(path: string): Treatment {
  if (!existsSync(join(options.root, path))) throw new Error(`Oxbow has nothing at ${path}`);
  if (path.startsWith(`${LOOKS}/`)) return { develop: lookAt(path) };
  if (path.startsWith(`${PRESETS}/`)) return presetAt(path);
  throw new Error(`Oxbow prints with looks and presets, and ${path} is neither`);
}

const print = printer({
  folder: 'Oxbow/Proofs',
  order: '.ask.json',
  fault: '.refused.txt',
  read: (text) => JSON.parse(text) as Order,
  treat,
});

const PROFILES = 'Oxbow/Profiles';
/** By path, the camera that each profile names. */
const cameraOf = new Map<string, string>();

/** Listed by its camera: one that lies in another's folder is refused. */
function profile(path: string): Omit<Listed, 'path'> {
  const { title, camera } = dngProfile(read(path));
  const folder = folderOf(path, PROFILES);
  if (folder && folder !== camera && !folder.startsWith(`${camera}, `))
    throw new Error(`it is for the ${camera}, and lies in the folder of the ${folder}`);
  cameraOf.set(path, camera);
  return titled(path, title, PROFILES);
}

const SUPPORT = 'Oxbow/Support';
/** Which body a serial is, where one model has several: of this user alone, or put there for everybody. */
const BODIES = [`${config}/bodies.txt`, `${SUPPORT}/bodies.txt`];
const knownBodies = (): ReadonlyMap<string, string> => new Map(BODIES.flatMap((file) => [...bodies(file)]));

function support(path: string): Omit<Listed, 'path'> {
  if (!BODIES.includes(path)) throw new Error('Oxbow reads bodies.txt here, and nothing else');
  if (!bodies(path).size) throw new Error('no line of it says which body a serial is');
  return { title: 'bodies', kind: 'support-file', headings: [] };
}

/** Profiles that a photo had to choose from when it was opened; it is opened again when its file was touched. */
const opened = new Map<string, { modified: number; profiles: string[] }>();

/** Camera profiles serve camera data of the body in whose folder they lie; those in none serve the plain body of their camera. */
function profilesFor(photo: Photo, listed: readonly Listed[]): string[] {
  if (photo.developed) return [];
  const body = bodyOf(photo, knownBodies());
  return listed.flatMap(({ path, kind }) => {
    if (kind !== 'camera-profile') return [];
    return (folderOf(path, PROFILES) || cameraOf.get(path)) === body ? [path] : [];
  });
}

const rulesFile = `${config}/opening.rules`;

/** The rules of its user; none, and the reason, where they are broken. */
function openingRules(): { rules: OpeningRule[]; refused: { path: string; reason: string }[] } {
  try {
    return { rules: rulesInFile(rulesFile), refused: [] };
  } catch (error) {
    return { rules: [], refused: [{ path: rulesFile, reason: (error as Error).message }] };
  }
}

/** What it begins a photo with, and the calibration that corrects it, which a rule may leave out. */
function opening(photo: Photo, rules: readonly OpeningRule[], lenses: Lenses): Pick<Card, 'opens' | 'calibration'> {
  const calibration = calibrationOf(photo, lenses);
  const facts = {
    body: bodyOf(photo, knownBodies()),
    file: photo.developed ? 'print' : 'negative',
    glass: calibration ? 'known' : 'unknown',
  };
  const opens = begin(rules, facts, { key: 'speed', iso: photo.iso });
  return { opens, calibration: opens.correct === 'never' ? '' : calibration };
}

interface Desk {
  listed: readonly Listed[];
  lenses: Lenses;
  first: readonly string[];
  rules: readonly OpeningRule[];
}

function card(photo: Photo, { listed, lenses, first, rules }: Desk): Card {
  const touched = modified(photo.path);
  const before = opened.get(photo.path);
  const there = new Set(listed.map(({ path }) => path));
  const profiles =
    before?.modified === touched ? before.profiles.filter((path) => there.has(path)) : profilesFor(photo, listed);
  opened.set(photo.path, { modified: touched, profiles });
  const others = listed.filter(({ kind }) => kind === 'look' || kind === 'preset').map(({ path }) => path);
  return {
    path: photo.path,
    card: 'shown',
    reason: '',
    offers: favoritesFirst([...others, ...profiles], first),
    ...opening(photo, rules, lenses),
  };
}

/** The favorites of all folders, one after the other. */
function favoritesOf(lists: readonly string[], listed: readonly Listed[]) {
  const chosen = lists.flatMap((list) =>
    read(list)
      .toString('utf8')
      .split(/\r?\n/)
      .map((line) => line.trim())
      .filter(Boolean)
      .map((name) => ({ name, list })),
  );
  return favorites(chosen, listed, (one, { name, list }) => one.path === `${list.slice(0, -LIST.length)}${name}`);
}

live(
  `${config}/contents.json`,
  `${config}/refused.log`,
  () => {
    const own = [...files(LOOKS), ...files(PRESETS)];
    const isOf = (folder: string) => (path: string) => path.startsWith(`${folder}/`) && !isList(path);
    const contents = take(own.filter(isOf(LOOKS)), look);
    const presets = take(own.filter(isOf(PRESETS)), preset);
    const profiles = take(files(PROFILES), profile);
    const lenses: Lenses = new Map();
    const databases = take(files('Oxbow/Lenses'), lensDatabase(lenses));
    const shelves = [contents, presets, profiles, databases, take(files(SUPPORT), support)];
    const listed = shelves.flatMap((shelf) => shelf.listed);
    const first = favoritesOf(own.filter(isList), listed);
    const { rules, refused } = openingRules();
    const desk = { listed, lenses, first: first.favorites, rules };
    return {
      listed,
      refused: [...shelves.flatMap((shelf) => shelf.refused), ...first.refused, ...refused],
      favorites: first.favorites,
      // it opens whatever comes, and offers all of its looks and presets
      cards: photos('Pictures').map((photo) => card(photo, desk)),
    };
  },
  { again: 700, print },
);
