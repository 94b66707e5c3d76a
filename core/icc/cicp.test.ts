import { describe, expect, test } from 'vitest';
import { cicpOf } from './cicp';

/** A profile of one tag: its name in the table, where it lies, and what stands there. */
function profile(name: string, at: number, type: string, values: number[]): Uint8Array {
  const bytes = new Uint8Array(160);
  const view = new DataView(bytes.buffer);
  const put = (text: string, where: number) => bytes.set(new TextEncoder().encode(text), where);
  view.setUint32(128, 1);
  put(name, 132);
  view.setUint32(136, at);
  view.setUint32(140, 12);
  put(type, 144);
  bytes.set(values, 152);
  return bytes;
}

describe('code points of a profile', () => {
  test('are read where they lie', () => {
    expect(cicpOf(profile('cicp', 144, 'cicp', [9, 16, 0, 1]))).toEqual({
      primaries: 9,
      transfer: 16,
      matrix: 0,
      fullRange: true,
    });
  });
  test('are none where the profile has none, or lies about them', () => {
    expect(cicpOf(profile('desc', 144, 'cicp', [9, 16, 0, 1]))).toBeNull();
    expect(cicpOf(profile('cicp', 144, 'text', [9, 16, 0, 1]))).toBeNull();
    expect(cicpOf(profile('cicp', 4_000_000, 'cicp', [9, 16, 0, 1]))).toBeNull();
    expect(cicpOf(new Uint8Array(10))).toBeNull();
    const many = profile('desc', 144, 'cicp', []);
    new DataView(many.buffer).setUint32(128, 0xffffffff);
    expect(cicpOf(many)).toBeNull();
  });
});
