import { describe, expect, test } from 'vitest';
import marlstone3 from '@/standins/descriptors/marlstone-3.json';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import { parseDescriptor } from '../editor/descriptor';
import { marlstonePreset, oxbowPreset } from '../preset/testing';
import { photoNow, sidecarOf, type PhotoNow } from './photo-now';

const editors = [marlstone3, oxbow2].map((one) => parseDescriptor(one));
const bytes = (text: string) => new TextEncoder().encode(text);
const steps = oxbowPreset(
  [
    '<rdf:li run:step="lamp" run:stops="0.4"/>',
    '<rdf:li run:step="dye" run:rich="18"/>',
    '<rdf:li run:step="edge" run:bite="0.5"/>',
    '<rdf:li run:step="table" run:name="Amber Proscenium" run:share="0.6"/>',
  ].join('\n'),
  { title: 'Evening' },
);
const jpeg = (packet: string) => new Uint8Array([0xff, 0xd8, ...bytes(packet), 0xff, 0xd9]);
const now = (photo: Uint8Array, sidecar: { path: string; bytes: Uint8Array } | null = null) =>
  photoNow({ path: 'Bowl.jpg', bytes: photo }, sidecar, editors);

describe('what a photo has now', () => {
  test('is told from the packet in its file, in the words of the common settings', () => {
    expect(now(jpeg(steps))).toMatchObject({
      from: 'file',
      editor: 'Oxbow 2',
      preset: 'Evening',
      looks: [{ name: 'Amber Proscenium', strength: 60 }],
      settings: ['Level', 'Chroma gain', 'Sharpening'],
    });
  });
  test('is told from the sidecar first', () => {
    const sidecar = marlstonePreset('[light]\namount=118\nsnap=10', { title: 'Morning', headings: ['Kiln'] });
    const told = now(jpeg(steps), { path: 'Bowl.ini', bytes: bytes(sidecar) }) as PhotoNow;
    expect(told).toMatchObject({ from: 'sidecar', editor: 'Marlstone 3', preset: 'Morning' });
  });
  test('is not told where nothing is written, or in no known language, or where it is broken', () => {
    expect(now(new Uint8Array([0xff, 0xd8]))).toEqual({
      why: 'nothing is written in it, and no sidecar lies beside it',
    });
    const foreign = '<x:xmpmeta xmlns:x="urn:meta"></x:xmpmeta>';
    expect(now(jpeg(foreign))).toEqual({ why: 'no descriptor of the studio describes its language' });
    expect(now(jpeg('<x:xmpmeta xmlns:x="urn:meta"><open></x:xmpmeta>'))).toMatchObject({
      why: expect.stringMatching(/^what is written cannot be read: /) as unknown,
    });
  });
});

describe('the sidecar of a photo', () => {
  const files = ['A/IMG 7.dng', 'A/IMG 7.xmp', 'A/IMG 8.dng', 'A/img 8.DNG.xmp', 'B/IMG 7.ini'].map((path) => ({
    path,
  }));
  test.each([
    ['A/IMG 7.dng', 'A/IMG 7.xmp'],
    ['A/IMG 8.dng', 'A/img 8.DNG.xmp'],
    ['B/IMG 7.dng', 'B/IMG 7.ini'],
    ['A/IMG 9.dng', undefined],
  ])('of %s is %s', (photo, sidecar) => {
    expect(sidecarOf(photo, files)?.path).toBe(sidecar);
  });
});
