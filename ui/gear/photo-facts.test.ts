import { must } from '@/core/must';
import { describe, expect, test } from 'vitest';
import { writeDng } from '@/core/frame/dng';
import { readPhotos } from './photo-facts';

const dng = (model: string, width = 8): Uint8Array<ArrayBuffer> =>
  new Uint8Array(
    writeDng({
      width,
      height: 8,
      cfa: [0, 1, 1, 2],
      mosaic: new Uint16Array(width * 8).fill(4000),
      black: 512,
      white: 16383,
      neutral: [0.5, 1, 0.6],
      maker: 'Corvane',
      model,
      unique: `${model} unique`,
      serial: '1',
      lens: '',
      focal: 50,
      aperture: 8,
      iso: 100,
      date: '2026:10:14 11:20:00',
      profile: { little: true, tags: new Map() },
      jpeg: null,
    }),
  );
/** A TIFF whose directory stands behind its pixels, as many programs write it. */
function late(pixels: number, model: string): Uint8Array<ArrayBuffer> {
  const name = new TextEncoder().encode(`${model}\0`);
  const ifd = 8 + pixels;
  const bytes = new Uint8Array(ifd + 2 + 3 * 12 + 4 + name.length);
  const view = new DataView(bytes.buffer);
  const at = ifd + 2 + 3 * 12 + 4;
  bytes.set([0x49, 0x49, 42, 0]);
  view.setUint32(4, ifd, true);
  view.setUint16(ifd, 3, true);
  [
    [256, 4, 1, 640],
    [257, 4, 1, 480],
    [272, 2, name.length, at],
  ].forEach(([tag, type, n, value], i) => {
    const e = ifd + 2 + i * 12;
    view.setUint16(e, must(tag), true);
    view.setUint16(e + 2, must(type), true);
    view.setUint32(e + 4, must(n), true);
    view.setUint32(e + 8, must(value), true);
  });
  bytes.set(name, at);
  return bytes;
}
const file = (bytes: BlobPart, name: string): File => new File([bytes], name);

describe('what photos say of their camera', () => {
  test('the same is said once, with how many say it; camera data and rendered files apart', async () => {
    const { said, unread } = await readPhotos(
      [
        file(dng('Ley'), 'a.dng'),
        file(dng('Ley'), 'b.dng'),
        file(dng('Ley II'), 'c.dng'),
        file(late(4, 'Corvane Ley'), 'd.tif'),
      ],
      () => {},
    );
    expect(unread).toBe(0);
    expect(said).toEqual([
      { maker: 'Corvane', camera: 'Ley', unique: 'Ley unique', kind: 'camera data', n: 2 },
      { maker: 'Corvane', camera: 'Ley II', unique: 'Ley II unique', kind: 'camera data', n: 1 },
      { maker: '', camera: 'Corvane Ley', unique: '', kind: 'rendered', n: 1 },
    ]);
  });
  test('a directory at the end of a large file is found', async () => {
    expect((await readPhotos([file(late(900_000, 'Alder'), 'x.tif')], () => {})).said).toMatchObject([
      { camera: 'Alder', n: 1 },
    ]);
  });
  test('of a large file with its directory in front, the beginning alone is read', async () => {
    const large = file(dng('Ley', 60_000), 'large.dng');
    const whole = large.arrayBuffer.bind(large);
    let asked = 0;
    large.arrayBuffer = () => {
      asked++;
      return whole();
    };
    expect((await readPhotos([large], () => {})).said).toHaveLength(1);
    expect([asked, large.size > 512 << 10]).toEqual([0, true]);
  });
  test('what is no picture, is cut off or empty is counted, and hinders nothing', async () => {
    const read = await readPhotos(
      [
        file('a list of shots', 'list.txt'),
        file('', 'empty'),
        file(late(40, 'Alder').slice(0, 60), 'cut.tif'),
        file(dng('Ley'), 'a.dng'),
      ],
      () => {},
    );
    expect([read.unread, read.said.length]).toEqual([3, 1]);
  });
  test('progress is told on the way', async () => {
    const steps: number[] = [];
    await readPhotos(
      Array.from({ length: 60 }, (_, i) => file(dng('Ley'), `${i}.dng`)),
      (n) => steps.push(n),
    );
    expect(steps).toEqual([25, 50]);
  });
});
