import { describe, expect, test } from 'vitest';
import { cautionOf } from './caution';

const look = (strength: number, ...roots: string[]) => ({ strength, roots, doubled: false });
const raw = { camera: 'Perrin Alder', fileKind: 'camera data' } as const;
const file = { camera: 'Perrin Alder', fileKind: 'rendered' } as const;
const none = { profileFor: null, anchored: false, looks: [] };
describe('cautions', () => {
  test('a preset and the look that was made of it act twice, wherever in the stack; two of other roots do not', () => {
    expect(
      cautionOf(raw, { ...none, looks: [look(100, 'preset'), look(50, 'other'), look(80, 'look', 'preset')] }),
    ).toBe('the same effect twice');
    expect(cautionOf(raw, { ...none, looks: [look(100, 'a'), look(100, 'b', 'c')] })).toBe('');
  });
  test('a preset that calls the look that was made of it acts twice by itself', () => {
    expect(cautionOf(raw, { ...none, looks: [{ ...look(100, 'preset', 'look'), doubled: true }] })).toBe(
      'the same effect twice',
    );
  });
  test('a profile of another camera, and the plain body’s on a converted one; not where it is for any, or anchored', () => {
    expect(cautionOf(raw, { ...none, profileFor: ['Ondine 40'] })).toBe('for the Ondine 40');
    expect(cautionOf({ ...raw, camera: 'Perrin Alder, infrared' }, { ...none, profileFor: ['Perrin Alder'] })).toBe(
      'for the Perrin Alder',
    );
    expect(
      cautionOf(
        { ...raw, camera: 'Perrin Alder, infrared' },
        { ...none, profileFor: ['Perrin Alder'], anchored: true },
      ),
    ).toBe('');
    for (const profileFor of [[], ['Perrin Alder'], ['PERRIN-ALDER'], null])
      expect(cautionOf(raw, { ...none, profileFor })).toBe('');
  });
  test('a rendered file has little left to give: more than the look’s own strength, or two looks, are heavy', () => {
    expect(cautionOf(file, { ...none, looks: [look(100, 'a')] })).toBe('');
    expect(cautionOf(file, { ...none, looks: [look(101, 'a')] })).toBe('heavy for a rendered file');
    expect(cautionOf(file, { ...none, looks: [look(40, 'a'), look(40, 'b')] })).toBe('heavy for a rendered file');
    expect(cautionOf(raw, { ...none, looks: [look(200, 'a')] })).toBe('');
  });
});
