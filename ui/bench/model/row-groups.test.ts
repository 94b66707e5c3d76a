import { describe, expect, test } from 'vitest';
import type { FrameOnBench } from './frame';
import { grouped, groupHeads } from './row-groups';

const frame = (id: string, camera: string, light: string, conversion = '') =>
  ({ id, camera, light, conversion }) as FrameOnBench;
const ley = (id: string, light: string) => frame(id, 'Corvane Ley', light);
const alder = (id: string, light: string) => frame(id, 'Perrin Alder', light);

describe('rows of a set', () => {
  test('stand by camera and light, each where its first stands', () => {
    const mixed = [ley('1', 'day'), alder('2', 'day'), ley('3', 'tungsten'), alder('4', 'day'), ley('5', 'day')];
    expect(grouped(mixed).map(({ id }) => id)).toEqual(['1', '5', '3', '2', '4']);
  });
  test('bear a head where another group begins', () => {
    const rows = [ley('1', 'day'), ley('5', 'day'), ley('3', 'tungsten'), alder('2', '')];
    expect(groupHeads(rows)).toEqual(['Corvane Ley, day', null, 'Corvane Ley, tungsten', 'Perrin Alder, no light']);
  });
  test('a converted body is a camera of its own', () => {
    const rows = [
      alder('1', 'day'),
      frame('2', 'Perrin Alder', 'day', 'infrared'),
      alder('3', 'day'),
      alder('4', 'day'),
    ];
    expect(groupHeads(grouped(rows)).filter(Boolean)).toEqual(['Perrin Alder, day', 'Perrin Alder, infrared, day']);
  });
  test('few rows, or rows of one kind, need none', () => {
    expect(groupHeads([ley('1', 'day'), alder('2', 'day')])).toEqual([null, null]);
    expect(groupHeads(Array.from({ length: 6 }, (_, n) => ley(String(n), 'day'))).every((head) => head === null)).toBe(
      true,
    );
  });
});
