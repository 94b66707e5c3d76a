import { describe, expect, test } from 'vitest';
import { fittingFrame, type FrameLike, type ItemLike } from './fitting-frame';

const frame = (id: string, more: Partial<FrameLike> = {}): FrameLike => ({
  id,
  kind: 'rendered',
  body: '',
  range: 'SDR',
  result: 'color',
  ...more,
});
const item = (more: Partial<ItemLike> = {}): ItemLike => ({
  kind: 'look',
  cameras: [],
  input: null,
  result: null,
  ...more,
});
const frames = [
  frame('composed'),
  frame('hdr', { range: 'HDR' }),
  frame('gray', { result: 'monochrome' }),
  frame('ley', { kind: 'camera data', body: 'Corvane Ley', range: null }),
  frame('alder', { kind: 'camera data', body: 'Perrin Alder', range: null }),
  frame('infrared', { kind: 'camera data', body: 'Perrin Alder, infrared', range: null, result: 'monochrome' }),
];

describe('the frame that an item is asked for first', () => {
  test.each([
    ['a look open to all: the first', item(), 'composed'],
    ['a look for HDR', item({ input: 'rendered HDR' }), 'hdr'],
    ['a look for rendered files', item({ input: 'rendered SDR' }), 'composed'],
    ['a look for camera data', item({ input: 'camera data' }), 'ley'],
    ['a monochrome look', item({ result: 'monochrome' }), 'composed'],
    [
      'a look that gives color, where the first is without',
      item({ result: 'color', cameras: ['Perrin Alder'] }),
      'alder',
    ],
    ['a look of one camera', item({ cameras: ['perrin alder'] }), 'alder'],
    ['a profile of one body', item({ kind: 'camera-profile', cameras: ['Perrin Alder, infrared'] }), 'infrared'],
    ['a profile of a camera that no frame is of', item({ kind: 'camera-profile', cameras: ['Ondine 40'] }), 'ley'],
    ['a lens database', item({ kind: 'lens-database' }), 'ley'],
  ])('%s', (_words, asked, expected) => {
    expect(fittingFrame(asked, frames)?.id).toBe(expected);
  });
  test('none where there is none', () => {
    expect(fittingFrame(item(), [])).toBeNull();
  });
});
