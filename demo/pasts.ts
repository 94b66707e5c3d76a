/** What has gathered at the workstations that few look after: old versions, copies, edited and unknown files, one switched off. */
import { createHash } from 'node:crypto';
import { copyFile, mkdir, readdir, readFile, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { must } from '@/core/must';
import { pool } from '@/server/db/pool';
import { maybe } from '@/server/db/query';
import type { Person } from '@/server/people/roles';
import { enrol, makeCode, stationOfToken, takeReport } from '@/server/stations/service';
import { kilnLooks, oxbowPresets, type Design } from './designs';
import { cubeOf, oxbowOf } from './files';
import { carryOut, rollOut } from './rollouts';
import { editorComes, put, rootOf } from './stations';

/** Numbers of a table made stronger or weaker by somebody, in the very file that was placed there. */
export async function editTable(file: string, factor: number): Promise<void> {
  const text = await readFile(file, 'utf8');
  await writeFile(
    file,
    text.replace(/^(\d\.\d+)/gm, (value) => (Number(value) * factor).toFixed(6)),
  );
}

/** The first looks of the house went to the Scanning desk; soon after it was switched off, and has said nothing since. */
export async function scanningDeskBegins(librarian: Person): Promise<void> {
  const name = 'Scanning desk';
  await rollOut(librarian, { title: 'First house looks', items: ['Footlight Deep', 'Limelight Bleach'], to: [name] });
  await carryOut(name, rootOf(name));
}

export async function scanningDeskFallsSilent(): Promise<void> {
  const name = 'Scanning desk';
  const { id } = must(await maybe<{ id: string }>(pool(), 'select id from station where name = $1', [name]));
  const code = await makeCode(pool(), id);
  const { token } = await enrol({ code, system: 'macos', host: 'scanning-desk', agentVersion: '0.4.0' });
  const files = await filesBelow(rootOf(name));
  await takeReport(await stationOfToken(`Bearer ${token}`), {
    agentVersion: '0.4.0',
    files,
    digest: createHash('sha256').update(JSON.stringify(files)).digest('hex'),
    listings: [],
    indexes: [],
    waiting: null,
  });
}

async function filesBelow(root: string): Promise<{ path: string; size: number; sha256: string }[]> {
  const entries = await readdir(root, { recursive: true, withFileTypes: true });
  const paths = entries.filter((entry) => entry.isFile()).map((entry) => join(entry.parentPath, entry.name));
  return Promise.all(
    paths.sort().map(async (full) => {
      const bytes = await readFile(full);
      const sha256 = createHash('sha256').update(bytes).digest('hex');
      return { path: full.slice(root.length + 1), size: bytes.length, sha256 };
    }),
  );
}

/** The first release of the plaster looks, which a second has followed since. */
export async function costumeStoreBegins(librarian: Person): Promise<void> {
  const name = 'Costume store';
  await rollOut(librarian, { title: 'Plaster looks for costumes', items: ['Wet Cast', 'Gypsum'], to: [name] });
  await carryOut(name, rootOf(name));
}

export const costumeStoreGetsTessel = (librarian: Person): Promise<void> =>
  editorComes(librarian, 'Costume store', 'tessel@7');

export async function kilnRoomAndRoadLaptopBegin(librarian: Person): Promise<void> {
  const to = ['Kiln room', 'Road laptop'];
  await rollOut(librarian, { title: 'House looks for ceramics', items: ['Gallery Neutral', 'Scrim'], to });
  for (const name of to) await carryOut(name, rootOf(name));
}

/** A try of somebody's that the studio does not hold. */
const ownTry = (at: number, title: string, more: Design['settings']): string => {
  const design = must(kilnLooks[at]);
  return cubeOf({ ...design, title, settings: { ...design.settings, ...more } }, 17);
};

/** Copies under other names, a list of favorites and rules of their own. */
export async function kilnRoomGathers(): Promise<void> {
  const root = rootOf('Kiln room');
  const [neutral] = (await filesBelow(root)).filter(({ path }) => path.endsWith('/Gallery Neutral.cube'));
  const from = must(neutral).path;
  await mkdir(join(root, 'Oxbow/Looks/Ines'), { recursive: true });
  await copyFile(join(root, from), join(root, 'Oxbow/Looks/Ines/neutral, the good one.cube'));
  await put(root, 'Oxbow/Looks/Ines/Raku Test 3.cube', ownTry(1, 'Raku Test 3', { warmth: 22, contrast: 1.31 }));
  await put(root, 'Oxbow/Looks/Ines/Raku Test 3 (2).cube', ownTry(1, 'Raku Test 3', { warmth: 22, contrast: 1.31 }));
  await put(root, `${dirname(from)}/first.list`, 'Gallery Neutral.cube\n');
  await put(
    root,
    'Library/Application Support/Oxbow/opening.rules',
    '=> correct = never; grain = keep; offset = drop\n',
  );
}

/** Files that nobody has catalogued, and one that is broken. */
export async function flyGalleryGathers(): Promise<void> {
  const root = rootOf('Fly gallery');
  await put(root, 'Oxbow/Looks/Rigging/Rope and Dust.cube', ownTry(2, 'Rope and Dust', { warmth: 34, level: -0.2 }));
  await put(root, 'Oxbow/Looks/Rigging/Working Light.cube', ownTry(3, 'Working Light', { warmth: -26, toe: 18 }));
  const torn = ownTry(0, 'Torn Gauze', { contrast: 0.8 }).split('\n').slice(0, -40).join('\n');
  await put(root, 'Oxbow/Looks/Rigging/Torn Gauze.cube', torn);
  const preset = { ...must(oxbowPresets[0]), title: 'Grid, from above', headings: [] };
  await put(root, 'Oxbow/Presets/Grid, from above.xmp', oxbowOf(preset));
  // the sibling was started there once, and nobody has told the librarian
  const listing = { at: '2026-09-02T08:11:00.000Z', running: false, listed: [], refused: [] };
  await put(root, '.config/oxbow/contents.json', JSON.stringify(listing));
  await put(root, 'Oxbow/Looks/Rigging/which is which.txt', 'Rope and Dust is the one for the flats\n');
}

/** One look made stronger in its own file, beside a copy of how it came. */
export async function roadLaptopIsEdited(): Promise<void> {
  const root = rootOf('Road laptop');
  const [placed] = (await filesBelow(root)).filter(({ path }) => path.endsWith('/Scrim.cube'));
  const file = join(root, must(placed).path);
  await copyFile(file, join(dirname(file), 'Scrim before I touched it.cube'));
  await editTable(file, 1.05);
}
