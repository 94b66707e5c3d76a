/** The demo's eight workstations and the card: who works there, with what, and where their folder trees lie. */
import { mkdir, readFile, rm, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { bodyOf } from '@/core/frame/body';
import { must } from '@/core/must';
import { dataFolder } from '@/server/data-folder';
import { pool, transaction } from '@/server/db/pool';
import { many } from '@/server/db/query';
import { addOrder } from '@/server/orders/service';
import { actorOf, type Person } from '@/server/people/roles';
import { changeCameras } from '@/server/stations/cameras-there';
import { changeStation, createStation, makeCode } from '@/server/stations/service';
import { studioCameras } from './cameras/gear';
import { fathomLooks, houseLooks } from './designs';
import { cubeOf } from './files';

interface Workstation {
  name: string;
  system: 'macos' | 'windows' | 'linux';
  person: string;
  editors: readonly string[];
  /** editors that stand open from the start */ running: readonly string[];
  /** bodies that are used there */ cameras: readonly string[];
  groups: readonly string[];
  /** nobody has switched it on for a month: its agent does not run */ silent?: true;
  /** its agent looks less often than the others, as one on a slow line does */ patient?: true;
}

export const workstations: readonly Workstation[] = [
  {
    name: 'Glaze desk',
    system: 'macos',
    person: 'Mirre Sand',
    editors: ['marlstone@4', 'marlstone@3', 'oxbow@2'],
    running: ['marlstone@4', 'oxbow@2'],
    cameras: ['Perrin Alder', 'Perrin Alder, infrared'],
    groups: ['Ceramics'],
  },
  {
    name: 'Model room',
    system: 'linux',
    person: 'Odile Wren',
    editors: ['oxbow@2'],
    running: ['oxbow@2'],
    cameras: ['Perrin Alder', 'Corvane Ley'],
    groups: ['Stage'],
  },
  {
    name: 'Print room',
    system: 'windows',
    person: 'Piet Tallow',
    editors: ['tessel@7'],
    running: ['tessel@7'],
    cameras: [],
    groups: [],
  },
  {
    name: 'Costume store',
    system: 'windows',
    person: 'Tove Linden',
    editors: ['marlstone@4'],
    running: [],
    cameras: ['Ondine 40'],
    groups: ['Stage'],
    patient: true,
  },
  {
    name: 'Kiln room',
    system: 'macos',
    person: 'Ines Barrow',
    editors: ['oxbow@2', 'oxbow-table@2'],
    running: [],
    cameras: ['Perrin Alder'],
    groups: ['Ceramics'],
    patient: true,
  },
  {
    name: 'Fly gallery',
    system: 'linux',
    person: 'Jory Tamm',
    editors: ['oxbow-table@2'],
    running: [],
    cameras: [],
    groups: ['Stage'],
    patient: true,
  },
  {
    name: 'Road laptop',
    system: 'windows',
    person: 'Sanne Vale, guest',
    editors: ['marlstone@3', 'oxbow@2'],
    running: [],
    cameras: ['Ondine 40'],
    groups: ['Away'],
    patient: true,
  },
  {
    name: 'Scanning desk',
    system: 'macos',
    person: 'Bram Keel',
    editors: ['marlstone@4'],
    running: [],
    cameras: [],
    groups: ['Away'],
    silent: true,
  },
];

/** A station as the launcher and the agents' starter know it. */
interface Tree {
  name: string;
  root: string;
  system: string;
  editors: readonly string[];
  running?: readonly string[];
  code?: string;
  /** the folder of its agent; one without is not started */ state?: string;
  patient?: true;
}

export const stationFolder = (name: string): string =>
  join(dataFolder(), 'stations', name.toLowerCase().replace(/[^a-z0-9]+/g, '-'));
export const rootOf = (name: string): string => join(stationFolder(name), 'root');

const listFile = (): string => join(dataFolder(), 'stations', 'stations.json');

export async function put(root: string, path: string, content: string): Promise<void> {
  await mkdir(dirname(join(root, path)), { recursive: true });
  await writeFile(join(root, path), content);
}

const writeList = (list: readonly Tree[]): Promise<void> =>
  writeFile(listFile(), JSON.stringify(list, null, 1), { mode: 0o600 });

/** The studio's cameras by their bodies. */
async function camerasNamed(bodies: readonly string[]): Promise<string[]> {
  const found = await many<{ id: string; model: string; conversion: string }>(
    pool(),
    'select id, model, conversion from camera',
  );
  const wanted = new Set(bodies);
  return found.flatMap(({ id, model, conversion }) => (wanted.has(bodyOf({ camera: model, conversion })) ? [id] : []));
}

/** One workstation, with its tree and its agent's code; its id beside. */
async function makeStation(
  librarian: Person,
  station: Workstation,
  position: number,
): Promise<{ id: string; tree: Tree }> {
  const { name, system, editors, running, cameras, groups, silent, patient } = station;
  const root = rootOf(name);
  await mkdir(root, { recursive: true });
  const { id, code } = await transaction(async (sql) => {
    const id = await createStation(sql, actorOf(librarian), {
      name,
      system,
      person: station.person,
      editors: [...editors],
      kind: 'workstation',
      hostId: null,
      position,
    });
    return { id, code: await makeCode(sql, id) };
  });
  await changeCameras(librarian, id, { came: await camerasNamed(cameras), went: [] });
  if (groups.length) await changeStation(librarian, id, { name, person: station.person, groups: [...groups] });
  const agent = silent ? {} : { state: join(stationFolder(name), 'agent') };
  return { id, tree: { name, root, system, editors, running, code, ...agent, ...(patient ? { patient } : {}) } };
}

const CARD = 'Card, Perrin Alder';

/** The card in the reader of the Model room: it lies in that tree. */
async function makeCard(librarian: Person, hostId: string): Promise<Tree> {
  await transaction((sql) =>
    createStation(sql, actorOf(librarian), {
      name: CARD,
      kind: 'card',
      system: 'linux',
      person: 'in the reader of the Model room',
      hostId,
      editors: ['perrin-alder@1'],
      position: 90,
    }),
  );
  return { name: CARD, root: rootOf('Model room'), system: 'linux', editors: ['perrin-alder@1'] };
}

export async function makeStations(librarian: Person): Promise<void> {
  const list: Tree[] = [];
  for (const [position, station] of workstations.entries()) {
    const { id, tree } = await makeStation(librarian, station, position);
    list.push(tree);
    if (station.name === 'Model room') list.push(await makeCard(librarian, id));
  }
  await whatLayAtTheFirstThree();
  await writeList(list);
}

/** An editor that came to a station later. */
export async function editorComes(librarian: Person, name: string, editor: string): Promise<void> {
  const [found] = await many<{ id: string; person: string }>(pool(), 'select id, person from station where name = $1', [
    name,
  ]);
  const { id, person } = must(found);
  await changeStation(librarian, id, { name, person, came: [editor] });
  const list = JSON.parse(await readFile(listFile(), 'utf8')) as Tree[];
  await writeList(list.map((tree) => (tree.name === name ? { ...tree, editors: [...tree.editors, editor] } : tree)));
}

/** What lies in the Print room's bundle from before: two presets that serve, and one that calls a pane that is gone. */
const printRoomBundle = {
  tessel: 7,
  desk: { opened: 41 },
  presets: {
    'Counter Proof': { tessel: 7, name: 'Counter Proof', trays: 'Prints', daylight: { bright: 15, stretch: 10 } },
    'Late Gallery': { tessel: 7, name: 'Late Gallery', trays: 'Prints > Evening', glass: { depth: -30, amber: 12 } },
    'Old Sleeve': { tessel: 7, name: 'Old Sleeve', trays: 'Prints', pane: { named: 'Sleeve 2019', share: 0.8 } },
  },
  panes: {},
  chosen: {
    favorites: ['presets/Late Gallery', 'presets/Counter Proof'],
    opening: [{ seen: {}, laid: { optics: 0, calm: 1, stops: 'no', works: '7.1' } }],
  },
};

async function whatLayAtTheFirstThree(): Promise<void> {
  const [desk, room, prints] = [rootOf('Glaze desk'), rootOf('Model room'), rootOf('Print room')];
  await put(room, 'media/ALDER/LOOKS/OLD_TEST.cube', cubeOf(must(houseLooks[4]), 17));
  await put(room, 'media/ALDER/LOOKS.LST', 'OLD_TEST.cube\r\n');
  await put(desk, 'Oxbow/Looks/Kept from last year/Wet Clay.cube', cubeOf(must(fathomLooks[6])));
  await put(desk, 'Library/Application Support/.marlstone-4/looks/Wet Clay.cube', cubeOf(must(fathomLooks[6])));
  const red = must(studioCameras.find(({ conversion }) => conversion));
  await put(
    desk,
    'Library/Application Support/Oxbow/bodies.txt',
    `# which body a serial is, where one model has several\n${red.serials.join()} = ${bodyOf({ camera: red.model, conversion: red.conversion })}\n`,
  );
  await put(desk, 'Library/Application Support/Oxbow/opening.rules', '=> correct = by name; grain = lift all\n');
  await put(
    room,
    '.config/oxbow/opening.rules',
    '# prints are corrected already\nfile = print => correct = never\n=> correct = by name; grain = lift specks\n',
  );
  await put(desk, 'Oxbow/Presets/notes.txt', 'ask Odile which of these are still used\n');
  await mkdir(join(room, 'Oxbow/Looks'), { recursive: true });
  await put(prints, 'AppData/Roaming/Tessel/tessel.json', JSON.stringify(printRoomBundle, null, 1));
}

/** What two of the stations follow: the house's everyday list. */
export async function bringOrders(lead: Person): Promise<void> {
  const stations = await many<{ id: string }>(pool(), 'select id from station where name = any ($1::text[])', [
    ['Glaze desk', 'Model room'],
  ]);
  await addOrder(lead, {
    name: 'Everyday desks',
    shelves: [],
    packs: [],
    ribbons: true,
    choices: false,
    stations: stations.map(({ id }) => id),
  });
}

export async function removeStations(): Promise<void> {
  for (const { name } of workstations) await rm(stationFolder(name), { recursive: true, force: true });
  await rm(listFile(), { force: true });
}
