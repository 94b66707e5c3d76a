/** A camera profile on the page of its item: what it makes of a frame of its camera. */
import sharp from 'sharp';
import { beforeAll, expect, test } from 'vitest';
import { cameraProfileFacts } from '@/core/camera/facts';
import { writeDcp } from '@/core/camera/dcp';
import { writeDng } from '@/core/frame/dng';
import { must } from '@/core/must';
import { cameras, neutralUnder } from '@/demo/cameras/cameras';
import { profileFor } from '@/demo/cameras/profiles';
import { daylight } from '@/demo/cameras/spectra';
import { putBlob } from '../blobs/service';
import { transaction } from '../db/pool';
import { people, withDatabase } from '../db/testing/database';
import { addFrame, factsOfFrame, frameFromFile } from '../frames/service';
import { createItem } from '../items/create';
import { actorOf } from '../people/roles';
import { addShelf } from '../shelves/service';
import { profilePicture } from './picture';

withDatabase();
const alder = must(cameras.find((camera) => camera.model === 'Perrin Alder') ?? cameras[0]);
let frame = '';
let composed = '';
const profiles: Record<string, string> = {};

/** The left half gray under the light of the frame, the right one warmer. */
function dngOfTwoHalves(): Uint8Array {
  const [width, height] = [48, 32];
  const neutral = neutralUnder(alder, daylight(5600));
  const mosaic = new Uint16Array(width * height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const channel = [0, 1, 1, 2][(y % 2) * 2 + (x % 2)] ?? 0;
      const warmer = x >= width / 2 ? [1.3, 1, 0.6][channel] : 1;
      mosaic[y * width + x] = 512 + 15871 * 0.25 * must(neutral[channel]) * must(warmer);
    }
  return writeDng({
    width,
    height,
    cfa: [0, 1, 1, 2],
    mosaic,
    black: 512,
    white: 16383,
    neutral,
    maker: 'Perrin',
    model: 'Perrin Alder',
    unique: 'Perrin Alder',
    serial: 'PA-9',
    lens: '',
    focal: 50,
    aperture: 8,
    iso: 100,
    date: '2026:10:14 11:20:00',
    profile: profileFor(alder, null, 'Embedded'),
    jpeg: null,
  });
}

beforeAll(async () => {
  const actor = actorOf(people.librarian);
  const shelfId = await addShelf(people.librarian, { name: 'Profiles' });
  const dng = dngOfTwoHalves();
  frame = await transaction(async (sql) =>
    frameFromFile(sql, actor, {
      name: 'Halves',
      fileName: 'Halves.dng',
      sha: await putBlob(sql, Buffer.from(dng)),
      facts: factsOfFrame(dng),
    }),
  );
  const png = await sharp({ create: { width: 8, height: 8, channels: 3, background: '#888' } })
    .png()
    .toBuffer();
  composed = await transaction((sql) =>
    addFrame(sql, actor, { name: 'Composed', light: '', png, width: 8, height: 8, position: 1 }),
  );
  for (const variant of ['Standard', 'Monochrome'] as const) {
    const bytes = Buffer.from(writeDcp(profileFor(alder, variant, variant)));
    const made = await transaction(async (sql) =>
      createItem(sql, actor, {
        kind: 'camera-profile',
        title: variant,
        headings: [],
        shelfId,
        supplier: '',
        sha: await putBlob(sql, bytes),
        fileName: `${variant}.dcp`,
        format: 'dcp',
        facts: cameraProfileFacts(new Uint8Array(bytes)),
        selvedge: null,
        notes: '',
      }),
    );
    profiles[variant] = made.versionId;
  }
});

async function halves(profile: string): Promise<{ left: number[]; right: number[] }> {
  const png = await profilePicture(people.retoucher, must(profiles[profile]), frame);
  const { data, info } = await sharp(png).removeAlpha().raw().toBuffer({ resolveWithObject: true });
  const row = Math.floor(info.height / 2) * info.width;
  const at = (part: number): number[] =>
    [0, 1, 2].map((c) => must(data[(row + Math.floor(part * info.width)) * info.channels + c]));
  return { left: at(0.2), right: at(0.8) };
}
const spread = (color: number[]): number => Math.max(...color) - Math.min(...color);

test('what is gray in the light of the frame stays gray, what is warmer is', async () => {
  const { left, right } = await halves('Standard');
  expect(spread(left)).toBeLessThanOrEqual(3);
  expect(must(right[0]) - must(right[2])).toBeGreaterThan(30);
});

test('another profile makes another picture: a monochrome one has no color in it', async () => {
  const { right } = await halves('Monochrome');
  expect(spread(right)).toBeLessThanOrEqual(3);
});

test('a rendered frame, and what is no profile, are refused', async () => {
  const standard = must(profiles.Standard);
  await expect(profilePicture(people.lead, standard, composed)).rejects.toMatchObject({ code: 'frame-rendered' });
  await expect(profilePicture(people.lead, composed, frame)).rejects.toMatchObject({ code: 'not-found' });
});
