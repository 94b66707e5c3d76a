import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { whiteBalanceOf, whiteBalanceText, type WhiteBalance } from './white-balance';

const channel = fc.integer({ min: 1, max: 100_000 }).map((n) => n / 100_000);
const anyWhite: fc.Arbitrary<WhiteBalance> = fc.oneof(
  fc.constant<WhiteBalance>({ by: 'file' }),
  fc.constant<WhiteBalance>({ by: 'gray world' }),
  fc.tuple(channel, channel, channel).map((neutral): WhiteBalance => ({ by: 'neutral', neutral })),
  fc.record({
    by: fc.constant('temperature' as const),
    kelvin: fc.integer({ min: 2000, max: 50_000 }),
    tint: fc.integer({ min: -150, max: 150 }),
  }),
);

describe('a white balance', () => {
  test('is written and read back the same', () => {
    fc.assert(
      fc.property(anyWhite, (white) => {
        expect(whiteBalanceOf(whiteBalanceText(white))).toEqual(white);
      }),
    );
  });

  test.each(['', 'daylight', 'n:', 'n:1,2', 'n:1,x,2', 'n:1,2,3,4', 'k:5000', 'k:,1', 'k:5000,one', 'as:1'])(
    '%s is none',
    (text) => expect(whiteBalanceOf(text)).toBeNull(),
  );
});
