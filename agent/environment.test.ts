/** What the machine does to an agent: a full disk, a folder that cannot be written, a file that a program holds, a clock that jumps. */
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import type * as Files from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { afterAll, beforeEach, describe, expect, test, vi } from 'vitest';
import type { Operation, Plan } from '@/core/sync/protocol';
import { Applier, reversed } from './apply';

/** What breaks: a function of the file system, on paths that hold these words. */
interface Broken {
  of: 'open' | 'write' | 'rename' | 'mkdir' | 'rm' | 'copyFile';
  at: string;
  code: string;
}
const { broken, fault } = vi.hoisted(() => {
  const list: { of: string; at: string; code: string }[] = [];
  return {
    broken: list,
    fault: (of: string, path: unknown): void => {
      const hit = list.find((one) => one.of === of && String(path).includes(one.at));
      if (hit) throw Object.assign(new Error(`${hit.code}: ${of} '${String(path)}'`), { code: hit.code });
    },
  };
});
vi.mock('node:fs/promises', async (original) => {
  const real = await original<typeof Files>();
  const guarded =
    <Args extends unknown[], R>(of: string, work: (...args: Args) => Promise<R>, place = 0) =>
    async (...args: Args): Promise<R> => {
      fault(of, args[place]);
      return work(...args);
    };
  return {
    ...real,
    rename: guarded('rename', real.rename, 1),
    mkdir: guarded('mkdir', real.mkdir as (...args: unknown[]) => Promise<unknown>),
    rm: guarded('rm', real.rm),
    copyFile: guarded('copyFile', real.copyFile, 1),
    open: async (...args: Parameters<typeof real.open>) => {
      fault('open', args[0]);
      const handle = await real.open(...args);
      const { writeFile } = handle;
      handle.writeFile = async (...given: Parameters<typeof writeFile>) => {
        // a full disk takes a part before it says so
        if (broken.some((one) => one.of === 'write' && String(args[0]).includes(one.at)))
          await handle.write(Buffer.from('ha'));
        fault('write', args[0]);
        return writeFile.apply(handle, given);
      };
      return handle;
    },
  };
});

const base = mkdtempSync(join(tmpdir(), 'etagere-environment-'));
afterAll(() => rmSync(base, { recursive: true, force: true }));
const sha = (text: string): string => createHash('sha256').update(text).digest('hex');
let n = 0;
let root = '';
let state = '';
const contents = new Map<string, string>();
beforeEach(() => {
  n++;
  root = join(base, `root${n}`);
  state = join(base, `state${n}`);
  for (const folder of [root, state]) mkdirSync(folder);
  broken.length = 0;
  put('Looks/old.cube', 'old');
});

function put(path: string, text: string): void {
  mkdirSync(dirname(join(root, path)), { recursive: true });
  writeFileSync(join(root, path), text);
}
const content = (text: string): string => {
  contents.set(sha(text), text);
  return sha(text);
};
const applier = () =>
  new Applier({
    root,
    state,
    places: ['Looks'],
    fetch: async (hash, to) => {
      const { writeFile } = await import('node:fs/promises');
      fault('open', to);
      await writeFile(to, contents.get(hash) ?? '');
    },
  });
const plan = (id: string, ...operations: Omit<Operation, 'n' | 'place' | 'size'>[]): Plan => ({
  id,
  operations: operations.map((operation, place) => ({ n: place, place: 'looks', size: 1, ...operation })),
});
const three = (id: string): Plan =>
  plan(
    id,
    { do: 'put', path: 'Looks/first.cube', sha256: content('first'), expect: null },
    { do: 'put', path: 'Looks/old.cube', sha256: content('newer'), expect: sha('old') },
    { do: 'put', path: 'Looks/last.cube', sha256: content('last'), expect: null },
  );
const ids = ['01a210e5-4862-76ff-8bf1-cca38cebf5b1', '01a210e5-4862-76ff-8bf1-cca38cebf5b2'] as const;
const text = (path: string): string | null =>
  existsSync(join(root, path)) ? readFileSync(join(root, path), 'utf8') : null;
const texts = () => ['first', 'old', 'last'].map((name) => text(`Looks/${name}.cube`));
const leftovers = () => readdirSync(join(root, 'Looks')).filter((name) => !name.endsWith('.cube'));
const carryOut = async (given: Plan) => {
  const agent = applier();
  const { results } = await agent.apply(given);
  await agent.close();
  return results;
};

describe('where the machine does not let a file be written', () => {
  const hindrances: [string, Broken, RegExp][] = [
    ['the disk is full', { of: 'write', at: 'old.cube', code: 'ENOSPC' }, /disk is full/],
    ['the folder cannot be written', { of: 'open', at: 'old.cube', code: 'EROFS' }, /cannot be written/],
    ['writing there is forbidden', { of: 'open', at: 'old.cube', code: 'EACCES' }, /cannot be written/],
    ['an editor holds the file', { of: 'rename', at: 'Looks/old.cube', code: 'EBUSY' }, /held open/],
    ['another program holds the file', { of: 'rename', at: 'Looks/old.cube', code: 'EPERM' }, /./],
  ];
  test.each(hindrances)(
    'since %s, that one fails with a reason, nothing is half, and the others are done',
    async (_, what, why) => {
      broken.push(what);
      const results = await carryOut(three(ids[0]));
      expect(results.map(({ outcome }) => outcome)).toEqual(['done', 'failed', 'done']);
      expect(results[1]?.message).toMatch(why);
      expect([texts(), leftovers()]).toEqual([['first', 'old', 'last'], []]);
      // planned again when it is possible, it is done, and all can be taken back
      broken.length = 0;
      const again = plan(ids[1], { do: 'put', path: 'Looks/old.cube', sha256: content('newer'), expect: sha('old') });
      const done = await carryOut(again);
      expect([done.map(({ outcome }) => outcome), text('Looks/old.cube')]).toEqual([['done'], 'newer']);
      await carryOut({ ...reversed(again, done), id: ids[0] });
      expect(text('Looks/old.cube')).toBe('old');
    },
  );

  test('a full disk where contents are staged, or where what was there is kept, touches nothing', async () => {
    for (const of of ['open', 'copyFile'] as const) {
      broken.splice(0, broken.length, { of, at: state, code: 'ENOSPC' });
      const results = await carryOut(
        plan(ids[0], { do: 'put', path: 'Looks/old.cube', sha256: content('newer'), expect: sha('old') }),
      ).catch(() => null);
      expect(results === null || results.every(({ outcome }) => outcome === 'failed')).toBe(true);
      expect([text('Looks/old.cube'), leftovers()]).toEqual(['old', []]);
      broken.length = 0;
    }
    expect((await carryOut(three(ids[1]))).map(({ outcome }) => outcome)).toEqual(['done', 'done', 'done']);
  });
});

test('a clock that jumps, forwards or back, changes no result', async () => {
  vi.useFakeTimers({ toFake: ['Date'] });
  try {
    vi.setSystemTime(new Date('2031-01-01T00:00:00Z'));
    const done = await carryOut(three(ids[0]));
    vi.setSystemTime(new Date('1999-12-31T23:59:59Z'));
    const back = await carryOut({ ...reversed(three(ids[0]), done), id: ids[1] });
    expect(back.map(({ outcome, at }) => [outcome, at.slice(0, 4)])).toEqual(Array(3).fill(['done', '1999']));
    expect(texts()).toEqual([null, 'old', null]);
  } finally {
    vi.useRealTimers();
  }
});
