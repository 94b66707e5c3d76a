import { describe, expect, test } from 'vitest';
import { isReleaseOf } from './release';

const pack = (name: string, members: number) => ({ name, members });

describe('a delivery is another release of a pack', () => {
  test.each([
    ['under the same name with another release', pack('Kiln 1.0.zip', 9), pack('Kiln v2.zip', 3), 1, true],
    ['renamed, with most of its files', pack('Kiln', 9), pack('Fired', 10), 8, true],
    ['renamed, and half as large', pack('Kiln', 10), pack('Fired', 5), 5, true],
  ])('%s', (_, before, now, shared, is) => expect(isReleaseOf(before, now, shared)).toBe(is));

  test.each([
    ['with one look of nine beside a picture', pack('Kiln', 9), pack('For Odile', 1), 1],
    ['with the whole of a small pack among many others', pack('Kiln', 3), pack('Everything', 40), 3],
    ['of the same name that shares nothing', pack('Kiln', 9), pack('Kiln', 9), 0],
  ])('but not %s', (_, before, now, shared) => expect(isReleaseOf(before, now, shared)).toBe(false));
});
