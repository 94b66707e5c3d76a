/** Charts among the files of a delivery: known by their code, by their size alone, or not at all. */
import sharp from 'sharp';
import { expect, test } from 'vitest';
import { recognise } from '../recognise';
import { writeTiffPicture } from '../tiff/write-picture';
import { chartOfSize } from './in-file';
import { makeChart } from './make';

const name = { size: 9, kind: '8 bits' as const, id: 4712 };
const { width, height, data } = makeChart(name);
const raw = { width, height, channels: 3 as const };
const png = async (): Promise<Uint8Array> => new Uint8Array(await sharp(data, { raw }).png().toBuffer());

test('a chart is known by its number in PNG and TIFF, by its size in JPEG', async () => {
  for (const bytes of [await png(), writeTiffPicture({ width, height, channels: 3, data })]) {
    const { kind, format, facts } = recognise('back.png', bytes, []);
    expect([kind, format, facts]).toEqual(['chart', 'editor-chart', expect.objectContaining(name)]);
  }
  const jpeg = new Uint8Array(await sharp(data, { raw }).jpeg({ quality: 90 }).toBuffer());
  const guessed = recognise('back.jpg', jpeg, []);
  expect([guessed.kind, guessed.format]).toEqual(['chart', 'editor-chart']);
  expect(guessed.confidence).toBeLessThan(1);
});

test('a picture that only has the size of one is a frame; so is a chart that was cut', async () => {
  expect(chartOfSize(width, height)).toBe(9);
  expect(chartOfSize(width + 1, height)).toBeNull();
  const gray = sharp({ create: { ...raw, background: '#667' } });
  expect(recognise('gray.png', new Uint8Array(await gray.png().toBuffer()), []).kind).toBe('frame');
  const cut = sharp(await png()).extract({ left: 0, top: 0, width: width - 32, height });
  expect(recognise('cut.png', new Uint8Array(await cut.png().toBuffer()), []).kind).toBe('frame');
});
