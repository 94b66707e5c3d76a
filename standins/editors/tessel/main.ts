/**
 * Tessel 7: everything that it has is in one bundle, a JSON file that it reads at launch, keeps in memory, and writes anew
 * when it quits. Whatever somebody wrote into the file meanwhile is lost, as with many a program that keeps one.
 */
import { existsSync, mkdirSync, renameSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { inflateSync } from 'node:zlib';
import { adjust } from '../adjust';
import { code, inTurn, light, P3, type Color, type Develop } from '../color';
import { inLight, printer, redFastest, shareOf, tableOver, type Order, type Treatment } from '../darkroom';
import { calibrationOf, lensDatabase, type Lenses } from '../lenses';
import { favorites, favoritesFirst, names } from '../favorites';
import { begin, rulesIn, type OpeningRule } from '../opening';
import { photos, type Card, type Photo } from '../photos';
import { files, live, options, read, take, type Contents, type Listed } from '../program';
import { adjustmentsIn, isObject, type Entry } from './shards';

const home = `${options.system === 'macos' ? 'Library/Application Support' : 'AppData/Roaming'}/Tessel`;
const bundlePath = `${home}/tessel.json`;
const cameras = ['Perrin Alder', 'Perrin Alder IR', 'Ondine 40', 'Corvane Ley'];
const builtIn = ['Plain', 'Soft', 'Deep', 'Clear', 'Warm', 'Cool', 'Paper', 'Slate', 'Glass', 'Gray'];
const MOST_POINTS = 33;

interface Bundle {
  tessel: number;
  desk: { opened: number };
  presets: Record<string, Entry>;
  panes: Record<string, Entry>;
  /** What its user has chosen: things, as "panes/key", in order; and what photos are begun with. */
  chosen: { favorites?: unknown; opening?: unknown };
  [other: string]: unknown;
}

/** The bundle as it lies there; a new one where none does. Throws where it cannot be read. */
function readBundle(): Bundle {
  const empty: Bundle = { tessel: 7, desk: { opened: 0 }, presets: {}, panes: {}, chosen: {} };
  if (!existsSync(join(options.root, bundlePath))) return empty;
  const found = JSON.parse(read(bundlePath).toString('utf8')) as unknown;
  if (!isObject(found) || found.tessel !== 7) throw new Error('this is no bundle of Tessel 7');
  const bundle = { ...empty, ...found } as Bundle;
  for (const list of [bundle.presets, bundle.panes, bundle.desk, bundle.chosen])
    if (!isObject(list)) throw new Error('a list of the bundle is no list');
  return bundle;
}

interface Png {
  width: number;
  height: number;
  bits: number;
  color: number;
  /** each with the number of its filter before it */ rows: Buffer;
}

/** What a PNG says of itself: width, height, bits, color type, and its unpacked rows. */
function png(bytes: Buffer): Png {
  if (bytes.toString('latin1', 1, 4) !== 'PNG') throw new Error('its Hald image is no PNG');
  const [width, height] = [bytes.readUInt32BE(16), bytes.readUInt32BE(20)];
  const [bits, color] = [bytes[24]!, bytes[25]!];
  const parts: Buffer[] = [];
  for (let at = 8; at + 12 <= bytes.length; at += 12 + bytes.readUInt32BE(at))
    if (bytes.toString('latin1', at + 4, at + 8) === 'IDAT')
      parts.push(bytes.subarray(at + 8, at + 8 + bytes.readUInt32BE(at)));
  return { width, height, bits, color, rows: inflateSync(Buffer.concat(parts)) };
}

function pane(entry: Entry): { title: string; headings: string[] } {
  if (typeof entry.label !== 'string' || !entry.label) throw new Error('the pane has no label');
  if (typeof entry.hald !== 'string') throw new Error('the pane has no Hald image');
  const { width, height, bits, color, rows } = png(Buffer.from(entry.hald, 'base64'));
  const level = Math.round(Math.cbrt(width));
  if (width !== height || level ** 3 !== width) throw new Error(`an image of ${width} × ${height} is no Hald image`);
  if (level ** 2 > MOST_POINTS) throw new Error(`a table of ${level ** 2} points; Tessel takes ${MOST_POINTS}`);
  if (color !== 2) throw new Error('the Hald image has to be red, green and blue');
  if (rows.length !== height * (1 + (width * 3 * bits) / 8)) throw new Error('the Hald image is cut off');
  return { title: entry.label, headings: Array.isArray(entry.trays) ? (entry.trays as string[]) : [] };
}

/** The samples of a PNG, 0 to 1: its rows without their filters (ISO/IEC 15948, 9.2). */
function samples({ width, height, bits, rows }: Png): Float64Array {
  const wide = (width * 3 * bits) / 8;
  const step = (3 * bits) / 8;
  const plain = Buffer.alloc(wide * height);
  for (let y = 0; y < height; y++) {
    const filter = rows[y * (wide + 1)]!;
    for (let x = 0; x < wide; x++) {
      const at = y * wide + x;
      const left = x < step ? 0 : plain[at - step]!;
      const above = y ? plain[at - wide]! : 0;
      const corner = x < step || !y ? 0 : plain[at - wide - step]!;
      plain[at] = (rows[y * (wide + 1) + 1 + x]! + foretold(filter, left, above, corner)) & 255;
    }
  }
  const count = width * height * 3;
  return Float64Array.from({ length: count }, (_, i) =>
    bits === 16 ? plain.readUInt16BE(2 * i) / 65535 : plain[i]! / 255,
  );
}

function foretold(filter: number, left: number, above: number, corner: number): number {
  if (filter < 4) return [0, left, above, (left + above) >> 1][filter]!;
  const guess = left + above - corner;
  const [byLeft, byAbove, byCorner] = [left, above, corner].map((one) => Math.abs(guess - one)) as Color;
  if (byLeft <= byAbove && byLeft <= byCorner) return left;
  return byAbove <= byCorner ? above : corner;
}

/** Panes come last, on the light of a P3 display. */
function paneOf(entry: Entry): Develop {
  pane(entry);
  const image = png(Buffer.from(String(entry.hald), 'base64'));
  const size = Math.round(Math.cbrt(image.width)) ** 2;
  const table = { size, rows: samples(image), at: redFastest(size) };
  return tableOver(table, P3, { to: code, from: light });
}

/** A preset works first; of the pane that it calls, a share of the light is mixed in. */
function presetOf(entry: Entry): Treatment {
  const adjustments = adjustmentsIn(entry);
  const own = adjust(adjustments);
  const { named, share = 1 } = (entry.pane ?? {}) as { named?: string; share?: number };
  const called = Object.values(held?.panes ?? {}).find((one) => one.label === named);
  const develop = called ? inTurn(own, inLight(shareOf(share, paneOf(called)))) : own;
  return { develop, corners: adjustments.corners };
}

function treat(path: string): Treatment {
  const entryOf = (list: 'panes' | 'presets'): Entry | undefined => {
    const before = `${bundlePath}#${list}/`;
    return path.startsWith(before) ? held?.[list][path.slice(before.length)] : undefined;
  };
  const called = entryOf('panes');
  if (called) return { develop: inLight(paneOf(called)) };
  const preset = entryOf('presets');
  if (preset) return presetOf(preset);
  throw new Error(`Tessel has nothing at ${path}`);
}

/** `{"sheet": …, "pane": …, "as": …}` */
function order(text: string): Order {
  const { sheet, pane: put, as } = JSON.parse(text) as Record<string, string>;
  return { open: sheet ?? '', put: put ?? '', save: as ?? '' };
}

const print = printer({ folder: `${home}/Sheets`, order: '.sheet.json', fault: '.why.txt', read: order, treat });

function preset(entry: Entry, { panes }: Bundle): { title: string; headings: string[] } {
  if (entry.tessel !== 7) throw new Error('a preset of another edition of Tessel');
  const { profile } = (entry.camera ?? {}) as { profile?: string };
  if (profile !== undefined && !builtIn.includes(profile))
    throw new Error(`it names the profile ${profile}, which Tessel does not have`);
  const { named } = (entry.pane ?? {}) as { named?: string };
  if (named !== undefined && !Object.values(panes).some((one) => one.label === named))
    throw new Error(`it calls the pane ${named}, which is not in the bundle`);
  adjust(adjustmentsIn(entry));
  const trays = typeof entry.trays === 'string' ? entry.trays.split(' > ').filter(Boolean) : [];
  return { title: String(entry.name ?? ''), headings: trays };
}

/** Each entry of a list by its own reader; what that throws is the reason of the refusal. */
function takeEntries(
  list: 'presets' | 'panes',
  kind: string,
  bundle: Bundle,
  reader: (entry: Entry) => { title: string; headings: string[] },
): Contents {
  const out: Contents = { listed: [], refused: [] };
  for (const [key, entry] of Object.entries(bundle[list])) {
    const path = `${bundlePath}#${list}/${key}`;
    try {
      if (!isObject(entry)) throw new Error('the entry is no object');
      const { title, headings } = reader(entry);
      out.listed.push({ path, title: title || key, kind, headings });
    } catch (error) {
      out.refused.push({ path, reason: (error as Error).message });
    }
  }
  return out;
}

/** A pane may suit photos that are worked in color alone, or in black and white alone. */
function suits({ path }: Listed, { panes }: Bundle, { gray }: Photo): boolean {
  const list = `${bundlePath}#panes/`;
  const said = path.startsWith(list) ? panes[path.slice(list.length)]?.suits : undefined;
  const result = isObject(said) ? said.result : undefined;
  if (result !== 'color' && result !== 'monochrome') return true;
  return (result === 'monochrome') === gray;
}

/** A camera that is not in the list gives an empty card. */
const cards = (
  bundle: Bundle,
  listed: readonly Listed[],
  lenses: Lenses,
  first: readonly string[],
  rules: readonly OpeningRule[],
): Card[] =>
  photos('Pictures').map((photo): Card => {
    const { path, camera, developed } = photo;
    if (!developed && !cameras.includes(camera))
      return { path, card: 'empty', reason: `Tessel 7 does not read files of the ${camera}`, offers: [] };
    const offers = favoritesFirst(
      listed.filter((one) => suits(one, bundle, photo)).map((one) => one.path),
      first,
    );
    const found = calibrationOf(photo, lenses);
    const facts = { camera, kind: developed ? 'picture' : 'raw', glass: found !== '' };
    const opens = begin(rules, facts, { key: 'iso', iso: photo.iso });
    return { path, card: 'shown', reason: '', offers, calibration: opens.optics === 0 ? '' : found, opens };
  });

function favoritesOf({ chosen }: Bundle, listed: readonly Listed[]) {
  const list = `${bundlePath}#chosen/favorites`;
  try {
    return favorites(
      names(chosen.favorites ?? []).map((name) => ({ name, list })),
      listed,
      (one, { name }) => one.path === `${bundlePath}#${name}`,
    );
  } catch (error) {
    return { favorites: [], refused: [{ path: list, reason: (error as Error).message }] };
  }
}

function openingOf({ chosen }: Bundle): { rules: OpeningRule[]; refused: Contents['refused'] } {
  try {
    return { rules: rulesIn(chosen.opening ?? [], 'seen', 'laid'), refused: [] };
  } catch (error) {
    return { rules: [], refused: [{ path: `${bundlePath}#chosen/opening`, reason: (error as Error).message }] };
  }
}

/** What it holds in memory from its launch on; null where its bundle could not be read, which it then leaves alone. */
let held: Bundle | null = null;

function launch(): Contents {
  try {
    held = readBundle();
  } catch (error) {
    return { listed: [], refused: [{ path: bundlePath, reason: (error as Error).message }] };
  }
  const bundle = held;
  const panes = takeEntries('panes', 'look', bundle, pane);
  const presets = takeEntries('presets', 'preset', bundle, (entry) => preset(entry, bundle));
  const profiles = builtIn.map((name) => ({
    path: `built-in/${name}`,
    title: name,
    kind: 'camera-profile',
    headings: [],
  }));
  const lenses: Lenses = new Map();
  const databases = take(files(`${home}/Lenses`), lensDatabase(lenses));
  const listed = [...panes.listed, ...presets.listed];
  const first = favoritesOf(bundle, listed);
  const opening = openingOf(bundle);
  return {
    listed: [...listed, ...profiles, ...databases.listed],
    refused: [...panes.refused, ...presets.refused, ...databases.refused, ...first.refused, ...opening.refused],
    favorites: first.favorites,
    cards: cards(bundle, listed, lenses, first.favorites, opening.rules),
  };
}

function writeBack(): void {
  if (!held) return;
  const target = join(options.root, bundlePath);
  mkdirSync(dirname(target), { recursive: true });
  const desk = { ...held.desk, opened: Number(held.desk.opened) + 1 };
  writeFileSync(`${target}.new`, JSON.stringify({ ...held, desk }, null, 1));
  renameSync(`${target}.new`, target);
}

live(`${home}/listed.json`, `${home}/refused.log`, launch, { atQuit: writeBack, print });
