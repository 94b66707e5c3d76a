import { describe, expect, test } from 'vitest';
import { leftOutOf, listingOf, nothingLeftOut, withoutUnusable } from './left-out';
import { MOST_FILES } from './protocol';
import { reportSchema } from './protocol';

const file = (path: unknown) => ({ path, size: 1, sha256: 'a'.repeat(64) });
const report = (files: unknown[]) => ({
  agentVersion: '1',
  files,
  digest: 'b'.repeat(64),
  listings: [],
  indexes: [],
  waiting: null,
});

describe('a report', () => {
  test.each([
    ['a back slash', 'Looks/a\\b.cube', 'Looks/a\\b.cube'],
    ['a line break', 'Looks/a\nb.cube', 'Looks/a\\u000ab.cube'],
    ['half a sign', 'Looks/\ud83d.cube', 'Looks/\ufffd.cube'],
    ['a name too long to keep', `Looks/${'x'.repeat(1100)}`, `Looks/${'x'.repeat(194)}`],
  ])('with %s in one name is taken without that file, which is told', async (_, path, told) => {
    const good = file('Looks/good.cube');
    const { report: taken, leftOut } = withoutUnusable(report([good, file(path)]));
    expect(leftOut).toEqual({ count: 1, examples: [told] });
    expect(reportSchema.validateSync(taken)).toMatchObject({ files: [good] });
  });

  test.each(['../outside.cube', '/etc/passwd'])('with %j is refused as a whole: no file can be called so', (path) => {
    const { report: taken, leftOut } = withoutUnusable(report([file(path)]));
    expect(leftOut.count).toBe(0);
    expect(() => reportSchema.validateSync(taken)).toThrow();
  });

  test('of more files than are kept is taken as far as that goes', () => {
    const files = Array.from({ length: MOST_FILES + 30 }, (_, n) => file(`Looks/${n}.cube`));
    const { report: taken, leftOut } = withoutUnusable(report(files));
    expect((taken as { files: unknown[] }).files).toHaveLength(MOST_FILES);
    expect(leftOut.count).toBe(30);
    expect(leftOut.examples).toHaveLength(20);
  });

  test('without files, and what is no report at all, is for the schema', () => {
    for (const given of [report(null as never), null, 'x', 7, {}])
      expect(withoutUnusable(given)).toEqual({ report: given, leftOut: nothingLeftOut });
  });
});

describe('an editor’s list', () => {
  const seen = '2026-11-27T10:00:00.000Z';
  const written = (more: object) => JSON.stringify({ at: seen, running: true, listed: [], refused: [], ...more });

  test('is read entry by entry: what is none is passed over', () =>
    expect(
      listingOf(
        written({
          listed: [
            { path: 'a.cube', title: 'A', kind: 'look' },
            null,
            'x',
            { title: 'no path' },
            { path: 'b.cube', title: 7 },
          ],
          refused: [{ path: 'c.cube', reason: 'torn\u0000' }, []],
        }),
        seen,
      ),
    ).toEqual({
      at: seen,
      running: true,
      listed: [
        { path: 'a.cube', title: 'A', kind: 'look' },
        { path: 'b.cube', title: '', kind: '' },
      ],
      refused: [{ path: 'c.cube', reason: 'torn\ufffd' }],
    }));

  test.each(['yesterday', '', '2026-13-45', null, 9])('whose date is %j has the one at which it was seen', (at) =>
    expect(listingOf(written({ at }), seen)?.at).toBe(seen),
  );

  test.each([null, '', '{"listed":[', 'null', '[]', '{"listed":{},"refused":[]}'])('%j is none', (given) =>
    expect(listingOf(given, seen)).toBeNull(),
  );
});

test('what was left out of several parts is told together, with the first twenty', () => {
  const part = (name: string) => ({ count: 15, examples: Array.from({ length: 15 }, (_, n) => `${name} ${n}`) });
  const { count, examples } = leftOutOf([part('a'), part('b')]);
  expect(count).toBe(30);
  expect(examples).toHaveLength(20);
  expect(examples.at(-1)).toBe('b 4');
});
