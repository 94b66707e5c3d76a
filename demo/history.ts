/** What has happened at the demo's studio: a supplier's releases, rollouts, verdicts, requests, a file that somebody changed. */
import { createHash } from 'node:crypto';
import { readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { must } from '@/core/must';
import { acceptArrival, arrivalFor } from '@/server/arrivals/service';
import { decide } from '@/server/bench/decide';
import { saveBench } from '@/server/bench/service';
import { pool } from '@/server/db/pool';
import { many, maybe } from '@/server/db/query';
import { askFor, coverage, trackRequest } from '@/server/gear/service';
import { approveItems, confirmEncodings } from '@/server/items/approval';
import { setRibbon } from '@/server/items/service';
import { addLicence } from '@/server/licences/service';
import { setOpening } from '@/server/opening/service';
import type { Person } from '@/server/people/roles';
import { addShelf } from '@/server/shelves/service';
import { deliver } from './deliver';
import {
  costumeStoreBegins,
  costumeStoreGetsTessel,
  editTable,
  flyGalleryGathers,
  kilnRoomAndRoadLaptopBegin,
  kilnRoomGathers,
  roadLaptopIsEdited,
  scanningDeskBegins,
  scanningDeskFallsSilent,
} from './pasts';
import { carryOut, rollOut, versionOf, versionsOf } from './rollouts';
import { rootOf } from './stations';
import { quarryPack, type QuarryRelease } from './packs';
import { daysAgo } from './time';

export interface Staff {
  librarian: Person;
  lead: Person;
  retoucher: Person;
}

const srgb = {
  primaries: 'sRGB',
  transfer: 'sRGB',
  range: 'full',
  referred: 'display',
  white: 'D65',
} as const;

async function framesNamed(...starts: string[]): Promise<string[]> {
  const found = await many<{ id: string }>(
    pool(),
    `
      select id
      from frame
      where name like any ($1::text[])
      order by position, name
    `,
    [starts.map((start) => `${start}%`)],
  );
  return found.map(({ id }) => id);
}

export async function bringHistory(staff: Staff): Promise<void> {
  const { librarian } = staff;
  await daysAgo(35, () => scanningDeskBegins(librarian));
  await daysAgo(31, () => scanningDeskFallsSilent());
  await daysAgo(26, () => quarryComes(staff));
  await daysAgo(24, () => costumeStoreBegins(librarian));
  await daysAgo(19, () => houseLooksGoOut(staff));
  await daysAgo(11, () => whatTheBenchSaid(staff));
  await daysAgo(9, () => costumeStoreGetsTessel(librarian));
  await daysAgo(6, () => quarryComesAgain(staff));
  await daysAgo(5, () => kilnRoomAndRoadLaptopBegin(librarian));
  await daysAgo(3, () => requestsAreAnswered(staff));
  await daysAgo(2, () => openingIsAgreedOn(staff));
  await daysAgo(1, () => peopleMarkWhatTheyUse(staff));
  await peopleChangeTheirFiles();
  await peopleHaveFavorites(rootOf('Glaze desk'), rootOf('Model room'));
  await todaysWork(staff);
}

/** What nobody told Etagere of. */
async function peopleChangeTheirFiles(): Promise<void> {
  // somebody made a look weaker at the desk, in the very file that was placed there
  await editTable(join(rootOf('Model room'), 'Oxbow/Looks/House/Stage/Slate Backcloth.cube'), 0.94);
  await kilnRoomGathers();
  await flyGalleryGathers();
  await roadLaptopIsEdited();
}

const QUARRY = 'Quarry House';
const quarryFile = (release: QuarryRelease): string => `Quarry House - Plaster ${release}.zip`;

async function acceptQuarry(
  { librarian }: Staff,
  release: QuarryRelease,
  into: { shelfId: string; licenceId: string },
  date: string,
): Promise<void> {
  const arrival = await deliver(librarian, quarryFile(release), quarryPack(release));
  const { entries } = await arrivalFor(librarian, arrival);
  await acceptArrival(librarian, arrival, {
    entries: entries.filter((entry) => ['new', 'version', 'variant'].includes(entry.outcome)).map((entry) => entry.id),
    ...into,
    supplier: QUARRY,
    release,
    source: { author: 'Bas Quarry', address: 'https://quarryhouse.example/plaster', date, price: '45 EUR' },
  });
  const drafts = await many<{ id: string }>(
    pool(),
    `select id from item where supplier = $1 and status = 'draft' and kind = 'look' and archived_at is null`,
    [QUARRY],
  );
  const items = drafts.map(({ id }) => id);
  await confirmEncodings(librarian, { items, encoding: srgb });
  await approveItems(librarian, { items });
}

async function quarryComes(staff: Staff): Promise<void> {
  const shelfId = await addShelf(staff.librarian, { name: 'Quarry House, plaster', note: 'casts and plaster rooms' });
  const licenceId = await addLicence(staff.librarian, {
    name: 'Quarry House, one site',
    owner: QUARRY,
    terms: 'For one site, on all of its desks. May be converted for own use.',
    may_convert: 'yes',
    may_spread: 'yes',
    seats_by: 'site',
    seats: 1,
  });
  await acceptQuarry(staff, '1.0', { shelfId, licenceId }, '2026-10-30');
}

async function quarryComesAgain(staff: Staff): Promise<void> {
  const at = must(
    await maybe<{ shelfId: string; licenceId: string }>(
      pool(),
      `select shelf_id as "shelfId", licence_id as "licenceId" from item where supplier = $1 and licence_id is not null limit 1`,
      [QUARRY],
    ),
  );
  await acceptQuarry(staff, '1.1', at, '2026-11-19');
}

async function houseLooksGoOut({ librarian }: Staff): Promise<void> {
  const to = ['Glaze desk', 'Model room'];
  await rollOut(librarian, {
    title: 'House looks',
    items: ['Slate Backcloth', 'Limelight Bleach', 'Footlight Deep'],
    to,
  });
  for (const name of to) await carryOut(name, rootOf(name));
}

const wide = { gamut: 'P3', calibrated: '2026-11-02' };

/** Judged on frames of the stage: two of the house's looks, of which one becomes the house choice for the model's lamps. */
async function whatTheBenchSaid({ lead, retoucher }: Staff): Promise<void> {
  const stage = await framesNamed('OND 2207', 'LEY 0031');
  const lamps = await framesNamed('OND 2207');
  const [amber, slate] = await versionsOf(['Amber Proscenium', 'Slate Backcloth']);
  const [standard] = await versionsOf(['Ondine 40 Standard']);
  const judged = { display: wide, frames: stage, beside: 'none' };
  await decide(retoucher, {
    ...judged,
    look: slate,
    strength: 70,
    chosen: false,
    words: 'Too cold on the figures; right for the backcloth alone.',
  });
  await decide(lead, {
    ...judged,
    frames: lamps,
    profile: standard,
    look: amber,
    strength: 80,
    chosen: true,
    words: 'Holds the gilding, and the faces stay faces.',
    choice: {},
  });
  await saveBench(lead, null, {
    name: 'Stage model, amber or slate',
    state: `rows=${stage.join('~')}&cols=none~l:${amber}:80~l:${slate}:70`,
    shared: true,
  });
}

async function requestsAreAnswered({ librarian, retoucher }: Staff): Promise<void> {
  const { cameras } = await coverage(librarian);
  const ley = must(cameras.find(({ camera }) => camera.model === 'Corvane Ley II')).camera.id;
  const asked = { camera: ley, about: 'Corvane Ley II' };
  const table = await askFor(retoucher, {
    ...asked,
    wanted: 'lens calibration',
    askedOf: 'Saltmarsh Lens Bureau',
    note: '',
  });
  await trackRequest(librarian, table.id, { state: 'declined', note: 'not before the lens is sold' });
}

/** How photos are begun with in this house: the infrared body has no calibrations that hold for it. */
async function openingIsAgreedOn({ lead }: Staff): Promise<void> {
  await setOpening(lead, {
    revision: 0,
    rules: [
      { when: { camera: 'Perrin Alder, infrared' }, start: { lens: 'none', noise: 'color and luminance' } },
      { when: {}, start: { lens: 'matched', noise: 'color', exposure: 'applied, shown as zero' } },
    ],
  });
}

async function peopleMarkWhatTheyUse({ lead, retoucher }: Staff): Promise<void> {
  for (const [who, title] of [
    [retoucher, 'Footlight Deep'],
    [retoucher, 'Celadon Study'],
    [lead, 'Limelight Bleach'],
  ] as const)
    await setRibbon(who, (await versionOf(title)).item, { on: true, whose: 'mine' });
}

/** Two people have chosen what their editors offer first: one of them names a look that is gone. */
async function peopleHaveFavorites(desk: string, room: string): Promise<void> {
  const own = join(desk, 'Library/Application Support/.marlstone-4');
  const chosen = await Promise.all(
    ['Limelight Bleach', 'Slate Backcloth'].map(async (title) =>
      createHash('sha256')
        .update(await readFile(join(own, `looks/${title}.mlook`)))
        .digest('hex'),
    ),
  );
  await writeFile(join(own, 'favorites.json'), JSON.stringify(chosen));
  await writeFile(join(room, 'Oxbow/Looks/House/Stage/first.list'), 'Slate Backcloth.cube\nKept by hand.cube\n');
}

/** A rollout that the agents carry out once they run, and a release that waits at Intake. */
async function todaysWork({ librarian }: Staff): Promise<void> {
  await rollOut(librarian, { title: 'Plaster room', items: ['Plaster Dust', 'Gallery Neutral'], to: ['Glaze desk'] });
  await deliver(librarian, quarryFile('1.2'), quarryPack('1.2'));
}
