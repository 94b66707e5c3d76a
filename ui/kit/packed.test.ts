import { describe, expect, test } from 'vitest';
import { pack, unpack } from './packed';

describe('properties as one text', () => {
  test('come out as they went in', () => {
    const value = { title: 'Łódź “dusk” </script>', threads: [['#000000', '#ffffff']], n: 0, none: null };
    expect(unpack(pack(value))).toEqual(value);
  });

  test('are one value to whoever walks them', () => {
    expect(typeof pack([1, 2, 3])).toBe('string');
  });
});
