import { describe, expect, test } from 'vitest';
import { isReleaseOf, pairReleases, type ReleaseFile } from './release';

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

describe('files of a release and of the one before', () => {
  const file = (path: string, sha: string, itemId: string | null = null): ReleaseFile => ({
    path,
    kind: 'look',
    sha,
    itemId,
  });
  const paired = (now: ReleaseFile[], before: ReleaseFile[]) =>
    [...pairReleases(now, before)].map(([one, other]) => [one.path, other.path]);

  test('the very same file is found before a new form of its design, wherever it stands in the list', () => {
    const before = [file('Looks/Scrim.cube', 'a', 'scrim')];
    const now = [file('Looks/Scrim (JPEG).cube', 'b', 'scrim'), file('Looks/Scrim.cube', 'a', 'scrim')];
    expect(paired(now, before)).toEqual([['Looks/Scrim.cube', 'Looks/Scrim.cube']]);
  });

  test('a changed file by its name in whichever folder, a renamed one by its item', () => {
    const before = [file('Looks/Ash.cube', 'a', 'ash'), file('Looks/Bone.cube', 'b', 'bone')];
    const now = [file('Tables/ash.CUBE', 'c'), file('Tables/Old Bone.cube', 'd', 'bone')];
    expect(paired(now, before)).toEqual([
      ['Tables/ash.CUBE', 'Looks/Ash.cube'],
      ['Tables/Old Bone.cube', 'Looks/Bone.cube'],
    ]);
  });

  test('nothing is the successor of two, nor of what it only shares the lack of an item with', () => {
    const before = [file('a.cube', 'a')];
    expect(paired([file('b.cube', 'a'), file('a.cube', 'a')], before)).toEqual([['b.cube', 'a.cube']]);
    expect(paired([file('c.cube', 'c')], before)).toEqual([]);
  });
});
