/** Loads the demo scenario through the same services that people use, and takes it away again. Loading twice does nothing. */
import { randomBytes } from 'node:crypto';
import { existsSync } from 'node:fs';
import { mkdir, readFile, rm, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import sharp from 'sharp';
import { readCube } from '@/core/look';
import { recognise } from '@/core/recognise';
import { sampler } from '@/core/look/sample';
import { selvedge } from '@/core/look/selvedge';
import { must } from '@/core/must';
import { Problem } from '@/core/problem';
import { putBlob } from '@/server/blobs/service';
import { pool, transaction } from '@/server/db/pool';
import { descriptors } from '@/server/editors/service';
import { bringShipped } from '@/server/editors/shipped';
import { cameraProfileFacts } from '@/core/camera/facts';
import { writeDcp } from '@/core/camera/dcp';
import { bodyOf } from '@/core/frame/body';
import { saveSet } from '@/server/bench/service';
import { addChart, placeChart } from '@/server/charts/service';
import { addFrame, factsOfFrame, frameFromFile } from '@/server/frames/service';
import { createItem } from '@/server/items/create';
import { setRibbon } from '@/server/items/service';
import { confirmEncoding } from '@/server/items/encoding';
import { approve } from '@/server/items/approval';
import { addShelf } from '@/server/shelves/service';
import { askFor, coverage, keepGear, trackRequest } from '@/server/gear/service';
import { addLicence } from '@/server/licences/service';
import { acceptArrival, arrivalFor } from '@/server/arrivals/service';
import { addPerson, anyone } from '@/server/people/service';
import { actorOf, type Person } from '@/server/people/roles';
import { dataFolder } from '@/server/data-folder';
import marlstone3 from '@/standins/descriptors/marlstone-3.json';
import marlstone4 from '@/standins/descriptors/marlstone-4.json';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import oxbowTable2 from '@/standins/descriptors/oxbow-table-2.json';
import perrinAlder1 from '@/standins/descriptors/perrin-alder-1.json';
import tessel7 from '@/standins/descriptors/tessel-7.json';
import { fathomLooks, houseLooks, kilnLooks } from './designs';
import { cubeOf } from './files';
import { cardCorners, cardText } from './cameras/card';
import { cameraFrames, subjects } from './cameras/frames';
import { cameras } from './cameras/cameras';
import { lensDatabase, studioCameras, studioLenses } from './cameras/gear';
import { profileFor, variants } from './cameras/profiles';
import { frames, hdrFrame } from './frames';
import { deliver } from './deliver';
import { bringHistory, type Staff } from './history';
import { fathomPack, sablePack } from './packs';
import { Pictures, type PictureName } from './pictures';
import { bringOrders, makeStations, removeStations } from './stations';
import { daysAgo } from './time';
import { many } from '@/server/db/query';

export const builtIn = [oxbow2, oxbowTable2, marlstone4, marlstone3, tessel7, perrinAlder1] as unknown[];
const people = [
  { name: 'Odile Wren', email: 'odile@wrenandtallow.example', role: 'librarian' },
  { name: 'Piet Tallow', email: 'piet@wrenandtallow.example', role: 'lead' },
  { name: 'Mirre Sand', email: 'mirre@wrenandtallow.example', role: 'retoucher' },
] as const;
export interface SignIn {
  name: string;
  email: string;
  role: string;
  password: string;
}
export const signInsFile = (): string => join(dataFolder(), 'demo', 'sign-ins.json');
/** Editors that ship with the application as stand-ins: their descriptors, brought in at the first start that has them. */
export async function bringBuiltIn(): Promise<void> {
  await transaction(async (sql) => {
    for (const entry of builtIn as { editor: string; version: string }[])
      await bringShipped(sql, { personId: null, name: 'set-up' }, entry, `${entry.editor}-${entry.version}.json`);
  });
}

/** The reference frames that ship with the application, composed once, with or without the demo. */
export async function bringFrames(say: (s: string) => void = () => {}): Promise<void> {
  if (await framesAreThere()) return;
  const pictures = await Pictures.begin(referencePictures);
  try {
    await addFrames(pictures, say);
  } finally {
    await pictures.end();
  }
}

const referencePictures: PictureName[] = frames.map((_, at) => ({ of: 'reference', at }));
const cameraPictures: PictureName[] = cameraFrames.map((_, at) => ({ of: 'camera', at }));
const hdrPicture: PictureName = { of: 'hdr', at: 0 };

const framesAreThere = async (): Promise<boolean> => !!(await pool().query('select 1 from frame limit 1')).rowCount;

async function addFrames(pictures: Pictures, say: (s: string) => void): Promise<void> {
  say('composing the reference frames');
  for (const [at, { name, light }] of frames.entries()) {
    const png = Buffer.from(await pictures.bytes({ of: 'reference', at }));
    const { width, height } = await sharp(png).metadata();
    await transaction((sql) =>
      addFrame(sql, { personId: null, name: 'set-up' }, { name, light, position: at, png, width, height }),
    );
  }
}

/** Stands there while the demo is loaded: what is found with it is half of one. */
const loadingFile = () => join(dataFolder(), 'demo', 'loading');

/** The demo, once; one whose loading was broken off is taken away and loaded anew. */
export async function loadDemo(say: (s: string) => void = () => {}): Promise<{ loaded: boolean; signIns: SignIn[] }> {
  await bringBuiltIn();
  if (existsSync(loadingFile())) {
    say('an earlier start was broken off while it loaded the demo: it is loaded anew');
    await removeDemo();
    await bringBuiltIn();
  }
  if (await anyone())
    return {
      loaded: false,
      signIns: existsSync(signInsFile()) ? (JSON.parse(await readFile(signInsFile(), 'utf8')) as SignIn[]) : [],
    };
  say('loading the demo data');
  await mkdir(dirname(loadingFile()), { recursive: true });
  await writeFile(loadingFile(), '');
  const pictures = await Pictures.begin([...referencePictures, ...cameraPictures, hdrPicture]);
  try {
    return { loaded: true, signIns: await bringAll(pictures, say) };
  } finally {
    await pictures.end();
  }
}

async function bringAll(pictures: Pictures, say: (s: string) => void): Promise<SignIn[]> {
  const signIns: SignIn[] = people.map((p) => ({ ...p, password: randomBytes(9).toString('base64url') }));
  const staff = await daysAgo(61, () => addStaff(signIns));
  const { librarian } = staff;
  await mkdir(dirname(signInsFile()), { recursive: true });
  await writeFile(signInsFile(), JSON.stringify(signIns), { mode: 0o600 });

  say('filling the shelves');
  await daysAgo(47, () => bringLooks(librarian));

  if (!(await framesAreThere())) await addFrames(pictures, say);

  say('computing camera profiles and developing camera files');
  await daysAgo(38, () => bringCameras(librarian, pictures));

  say('listing cameras and lenses');
  await daysAgo(37, () => bringGear(librarian));

  say('setting up the stations');
  await daysAgo(36, () => makeStations(librarian));

  await daysAgo(12, () => bringOrders(staff.lead));

  say('telling what has happened since');
  await bringHistory(staff);
  // they have seen what has stood here for long
  await pool().query('update person set looked_at = now()');
  await rm(loadingFile());
  return signIns;
}

async function addStaff(signIns: readonly SignIn[]): Promise<Staff> {
  const [first, second, third] = signIns;
  const librarian = await addPerson(null, must(first) as never);
  const lead = await addPerson(librarian, must(second) as never);
  const retoucher = await addPerson(librarian, must(third) as never);
  return { librarian, lead, retoucher };
}

/** Looks, each an item of one version; `null` where they came without a licence. */
async function placeLooks(
  librarian: Person,
  shelfId: string,
  supplier: string,
  designs: typeof houseLooks,
  licenceId: string | null = null,
): Promise<{ itemId: string; versionId: string }[]> {
  const known = await descriptors();
  const made = [];
  for (const design of designs) {
    const bytes = Buffer.from(cubeOf(design));
    const recognised = recognise(`${design.title}.cube`, bytes, known);
    made.push(
      await transaction(async (sql) =>
        createItem(sql, actorOf(librarian), {
          kind: 'look',
          title: design.title,
          headings: design.headings,
          shelfId,
          supplier,
          licenceId,
          sha: await putBlob(sql, bytes),
          fileName: `${design.title}.cube`,
          format: 'cube',
          facts: recognised.facts,
          selvedge: selvedge(sampler(readCube(bytes))),
          notes: 'made in the studio',
        }),
      ),
    );
  }
  return made;
}

/** The shelves of looks: the studio's own, most of them approved, and two suppliers' packs, of which one still waits. */
async function bringLooks(librarian: Person): Promise<void> {
  const house = await addShelf(librarian, { name: 'House looks', note: 'on every desk' });
  const autumn = await addShelf(librarian, { name: 'Sable Row, autumn pack', note: 'taken in November, eight seats' });
  const set = await addShelf(librarian, { name: 'Fathom Color, stage set', note: 'looks for painted scenery' });
  const kiln = await addShelf(librarian, { name: 'Ceramics', note: 'studies of the kiln room' });
  const { seats, stage } = await bringLicences(librarian);
  const made = await placeLooks(librarian, house, '', houseLooks);
  for (const [i, { itemId, versionId }] of made.entries()) {
    if (i < 6) {
      await confirmEncoding(librarian, versionId, {
        primaries: 'sRGB',
        transfer: 'sRGB',
        range: 'full',
        referred: 'display',
        white: 'D65',
      });
      await approve(librarian, versionId);
    }
    if ([0, 1, 3, 5].includes(i)) await setRibbon(librarian, itemId, { on: true, whose: i % 2 ? 'mine' : 'house' });
  }
  await placeLooks(librarian, set, 'Fathom Color', fathomLooks.slice(0, 5), stage);
  await placeLooks(librarian, kiln, '', kilnLooks);
  await bringPacks(librarian, autumn, seats);
}

async function bringLicences(librarian: Person): Promise<{ seats: string; stage: string }> {
  const seats = await addLicence(librarian, {
    name: 'Sable Row, eight seats',
    owner: 'Sable Row Looks',
    terms: 'Eight seats. Conversion for own use is allowed.',
    may_convert: 'yes',
    may_spread: 'yes',
    seats: 8,
    seats_by: 'device',
  });
  const stage = await addLicence(librarian, {
    name: 'Fathom, studio licence',
    owner: 'Fathom Color',
    terms: 'For one studio, on all of its desks. No conversion without leave.',
    may_convert: 'unknown',
    may_spread: 'yes',
    seats_by: 'site',
    seats: 1,
  });
  return { seats, stage };
}

/** One pack is accepted, one waits as an arrival; both lie in the demo's folder too, to be dropped by hand. */
async function bringPacks(librarian: Person, shelfId: string, licenceId: string): Promise<void> {
  const sable = sablePack();
  const fathom = fathomPack();
  const arrival = await deliver(librarian, 'Sable Row Looks - Autumn.zip', sable);
  const entries = (await arrivalFor(librarian, arrival)).entries;
  await acceptArrival(librarian, arrival, {
    entries: entries.filter((e) => ['new', 'version', 'variant'].includes(e.outcome)).map((e) => e.id),
    shelfId,
    supplier: 'Sable Row Looks',
    licenceId,
    release: 'Autumn',
    source: {
      author: 'Ines Sable',
      address: 'https://sablerow.example/packs/autumn',
      date: '2026-11-02',
      receipt: 'SR-2026-1183',
    },
  });
  await deliver(librarian, 'Fathom Color - Stage set.zip', fathom);
  const packs = join(dataFolder(), 'demo', 'packs');
  await mkdir(packs, { recursive: true });
  await writeFile(join(packs, 'Sable Row Looks - Autumn.zip'), sable);
  await writeFile(join(packs, 'Fathom Color - Stage set.zip'), fathom);
}

/** Profiles of the demo's cameras, computed from their sensitivities, and camera files of its scenes; a set of what should look alike. */
async function bringCameras(librarian: Person, pictures: Pictures): Promise<void> {
  const actor = actorOf(librarian);
  const shelf = await addShelf(librarian, { name: 'Camera profiles', note: 'computed from measured sensitivities' });
  for (const camera of cameras)
    for (const style of variants) {
      const title = `${camera.model}${camera.converted ? ' IR' : ''} ${style}`;
      const bytes = Buffer.from(writeDcp(profileFor(camera, style, title)));
      const facts = cameraProfileFacts(bytes);
      const made = await transaction(async (sql) =>
        createItem(sql, actor, {
          kind: 'camera-profile',
          title,
          headings: [camera.maker, style],
          shelfId: shelf,
          supplier: style === 'Neutral' ? '' : 'Fathom Color',
          sha: await putBlob(sql, bytes),
          fileName: `${title}.dcp`,
          format: 'dcp',
          facts: {
            ...facts,
            fileTitle: facts.name,
            cameras: [bodyOf({ camera: camera.unique, conversion: camera.converted ? 'infrared' : '' })],
          },
          selvedge: null,
          notes: 'computed',
          origin: style === 'Neutral' ? 'measured' : 'maker-like',
        }),
      );
      if (style === 'Standard' || style === 'Neutral') await approve(librarian, made.versionId);
    }
  const ids: Record<string, string> = {};
  for (const [at, frame] of cameraFrames.entries()) {
    const dng = await pictures.bytes({ of: 'camera', at });
    ids[frame.file] = await transaction(async (sql) =>
      frameFromFile(sql, actor, {
        name: frame.name,
        fileName: frame.file,
        sha: await putBlob(sql, Buffer.from(dng)),
        facts: factsOfFrame(dng),
        light: frame.light,
        subject: subjects[frame.scene],
        conversion: frame.camera.converted ? 'infrared' : '',
      }),
    );
  }
  const hdr = await pictures.bytes(hdrPicture);
  await transaction(async (sql) =>
    frameFromFile(sql, actor, { ...hdrFrame, sha: await putBlob(sql, Buffer.from(hdr)), facts: factsOfFrame(hdr) }),
  );
  await saveSet(librarian, { name: 'Vessels, two lights', frames: [ids['ALD_0412.dng']!, ids['ALD_0415.dng']!] });
  await saveSet(librarian, {
    name: 'Every camera',
    frames: cameraFrames.filter((f) => f.scene === 'vessels' || f.scene === 'stage').map((f) => ids[f.file]!),
  });
  await saveSet(librarian, {
    name: 'Skin, cloth, leaves and lamps',
    frames: ['ALD_0431.dng', 'ALD_0440.dng', 'OND_2231.dng', 'LEY_0044.dng'].map((file) => ids[file]!),
  });
  const chart = await addChart(librarian, { text: cardText() });
  await placeChart(librarian, ids['ALD_0420.dng']!, { chart: chart.id, corners: cardCorners() });
  await saveSet(librarian, {
    name: 'Museum day',
    frames: [ids['ALD_0420.dng']!, ids['ALD_0412.dng']!, ids['ALD_0431.dng']!],
  });
}

/** The studio's own gear, with gaps: a second Ley that nobody has a profile for yet, and a lens that the bureau has not measured. */
async function bringGear(librarian: Person): Promise<void> {
  for (const c of studioCameras) await keepGear(librarian, 'camera', null, c);
  for (const optics of studioLenses)
    await keepGear(librarian, 'lens', null, { maker: optics.maker, model: optics.model, mount: optics.mount });
  const shelf = await addShelf(librarian, { name: 'Lens databases', note: 'releases of Saltmarsh Lens Bureau' });
  const bytes = Buffer.from(lensDatabase());
  const name = 'Saltmarsh Lens Bureau 2026-10.xml';
  const recognised = recognise(name, new Uint8Array(bytes), []);
  const made = await transaction(async (sql) =>
    createItem(sql, actorOf(librarian), {
      kind: 'lens-database',
      title: 'Saltmarsh Lens Bureau',
      headings: ['Saltmarsh'],
      shelfId: shelf,
      supplier: 'Saltmarsh Lens Bureau',
      sha: await putBlob(sql, bytes),
      fileName: name,
      format: recognised.format,
      facts: recognised.facts,
      selvedge: null,
      notes: 'release of October',
      origin: 'measured',
    }),
  );
  await approve(librarian, made.versionId);
  const ley = (await coverage(librarian)).cameras.find((l) => l.camera.model === 'Corvane Ley II')!.camera.id;
  const { id } = await askFor(librarian, {
    camera: ley,
    about: 'Corvane Ley II',
    wanted: 'camera profile',
    askedOf: 'Fathom Color',
    note: 'daylight and the kiln lamps',
  });
  await trackRequest(librarian, id, { state: 'sent', note: 'daylight and the kiln lamps' });
}

/** Takes the demo away: only while nobody but the demo's people is there, since their work hangs on it. */
export async function removeDemo(): Promise<void> {
  const others = await many<{ name: string }>(pool(), 'select name from person where email <> all ($1::citext[])', [
    people.map((p) => p.email),
  ]);
  if (others.length)
    throw new Problem(
      'demo-in-use',
      `There are other people here (${others
        .slice(0, 3)
        .map((o) => o.name)
        .join(', ')}), whose work would go with it.`,
      'demo',
      'Start with a data folder of its own instead: ETAGERE_DATA=… bin/start --empty.',
    );
  await pool().query(
    `
      truncate person,
      session,
      sign_in_failure,
      event,
      job,
      blob,
      upload,
      shelf,
      arrival,
      item,
      version,
      pack,
      frame,
      frame_set,
      bench,
      verdict,
      house_choice,
      camera,
      lens,
      gear_request,
      editor,
      editor_revision,
      licence,
      facet_count,
      station,
      rollout cascade
    `,
  );
  await pool().query('update studio set copy_p95 = default, copy_max = default');
  await pool().query('delete from graphile_worker._private_jobs');
  await rm(join(dataFolder(), 'demo'), { recursive: true, force: true });
  await removeStations();
}
