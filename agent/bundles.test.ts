/** Entries of a bundle on a real file system: put, kept, undone, waited for, and killed in the middle. */
import { chmodSync, existsSync, mkdirSync, readFileSync, rmSync, statSync, symlinkSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { afterAll, beforeAll, beforeEach, describe, expect, test, vi } from 'vitest';
import { must } from '@/core/must';
import type { Instructions, Operation, OperationResult, Plan } from '@/core/sync/protocol';
import { Applier, reversed } from './apply';
import { readIndexes, takeInventory } from './inventory';
import { Scratch, sha } from './testing/scratch';
import { EntryTarget } from './targets';
import { sendWanted } from './wanted';

const scratch = new Scratch('etagere-bundles-');
const PLACE = 'Tessel/tessel.json#presets';
const FILE = 'Tessel/tessel.json';
let root = '';
let state = '';
let contents = '';

beforeAll(() => scratch.buildProgram());
afterAll(() => scratch.remove());
beforeEach(() => {
  ({ root, state, contents } = scratch.station());
});

const write = (text: string): void => {
  mkdirSync(dirname(join(root, FILE)), { recursive: true });
  writeFileSync(join(root, FILE), text);
};
const bundle = (): Record<string, Record<string, unknown>> =>
  JSON.parse(readFileSync(join(root, FILE), 'utf8')) as Record<string, Record<string, unknown>>;
const content = (text: string): string => {
  writeFileSync(join(contents, sha(text)), text);
  return sha(text);
};
const plan = (...operations: Omit<Operation, 'n' | 'place' | 'size'>[]): Plan => ({
  id: '01a210e5-4862-76ff-8bf1-cca38cebf5bd',
  operations: operations.map((one, at) => ({ n: at, place: 'presets', size: 1, ...one })),
});
const applier = (more: Partial<ConstructorParameters<typeof Applier>[0]> = {}) =>
  new Applier({
    root,
    state,
    places: ['Looks', PLACE],
    fetch: async (hash, to) => writeFileSync(to, readFileSync(join(contents, hash))),
    ...more,
  });
const outcomes = (results: readonly OperationResult[]) => results.map(({ outcome, message }) => [outcome, message]);

/** A bundle in a layout of its own, with numbers that would be written otherwise. */
const BEFORE = `{"tessel": 7, "desk": {"opened": 12345678901234567890},
 "presets": {"Old": {"bright": 1.0}, "Gone": {"bright": 2}, "Theirs": {"bright": 3}}}`;
const AFTER = { Old: { bright: 9 }, Theirs: { bright: 3 }, New: { bright: 5 } };

function scene(): Plan {
  write(BEFORE);
  return plan(
    { do: 'put', path: `${PLACE}/New`, sha256: content('{"bright":5}'), expect: null },
    { do: 'put', path: `${PLACE}/Old`, sha256: content('{"bright":9}'), expect: sha('{"bright":1}') },
    { do: 'remove', path: `${PLACE}/Gone`, sha256: null, expect: sha('{"bright":2}') },
  );
}

describe('entries of a bundle', () => {
  test('are put, replaced and taken away, the rest stays byte for byte, and all of it is taken back', async () => {
    const todo = scene();
    const first = applier();
    const { results } = await first.apply(todo);
    expect(results.map(({ outcome, before }) => [outcome, before])).toEqual([
      ['done', null],
      ['done', sha('{"bright":1}')],
      ['done', sha('{"bright":2}')],
    ]);
    expect(bundle().presets).toEqual(AFTER);
    expect(readFileSync(join(root, FILE), 'utf8')).toContain('"desk": {"opened": 12345678901234567890}');
    await first.close();
    await applier().apply(reversed(todo, results));
    expect(bundle()).toEqual(JSON.parse(BEFORE));
  });

  test('that were changed, made or taken away there since are left alone', async () => {
    const todo = scene();
    write('{"presets": {"Old": {"bright": 4}, "New": {"bright": 6}}}');
    const there = readFileSync(join(root, FILE), 'utf8');
    const { results } = await applier().apply(todo);
    expect(results.map(({ outcome }) => outcome)).toEqual(['conflict', 'conflict', 'conflict']);
    expect(readFileSync(join(root, FILE), 'utf8')).toBe(there);
  });

  test('wait while the editor runs that would write over them, and files go on', async () => {
    const todo = scene();
    const put = { do: 'put' as const, path: 'Looks/a.cube', sha256: content('a'), expect: null };
    const both = plan(...todo.operations.map(({ place: _p, size: _s, n: _n, ...rest }) => rest), put);
    const running = async (path: string) => (path.startsWith(PLACE) ? 'Tessel 7' : null);
    const waiting = await applier({ running }).apply(both);
    expect(outcomes(waiting.results)).toEqual([['done', '']]);
    expect(waiting.later).toHaveLength(3);
    expect(must(waiting.later[0]).message).toBe('Tessel 7 is running, and would write over it when it quits');
    expect(bundle()).toEqual(JSON.parse(BEFORE));
  });

  test('wait where the editor writes its bundle in that very moment', async () => {
    const written = BEFORE.replace('"tessel": 7', '"tessel": 7, "more": 1');
    const again = scene();
    // after the bundle was composed, and before it is put in place
    const quitting = vi.spyOn(EntryTarget.prototype, 'settle').mockImplementationOnce(async function (
      this: EntryTarget,
    ) {
      write(written);
      await this.settle();
    });
    const { results, later } = await applier().apply(again);
    expect(outcomes(results)).toEqual([
      ['done', ''],
      ['done', ''],
    ]);
    expect(later).toEqual([{ n: 0, message: `"${FILE}" was changed meanwhile` }]);
    expect(bundle()).toMatchObject({ more: 1, presets: { Old: { bright: 9 } } });
    expect(bundle().presets).not.toHaveProperty('New');
    quitting.mockRestore();
  });

  test.each([
    ['there is none', null, 'start the editor and quit it once'],
    ['it is cut off', '{"presets": {', 'cannot be read'],
    ['it holds one key twice', '{"presets": {"New2": 1, "New2": 1}}', 'more than once'],
  ])('fail with a word where %s, and nothing is made', async (_, text, message) => {
    if (text !== null) write(text);
    const twice = text?.includes('New2');
    const { results } = await applier().apply(
      plan({
        do: 'put',
        path: `${PLACE}/${twice ? 'New2' : 'New'}`,
        sha256: content('{"bright":5}'),
        expect: twice ? sha('1') : null,
      }),
    );
    expect(must(results[0]).outcome).toBe('failed');
    expect(must(results[0]).message).toContain(message);
    expect(existsSync(join(root, FILE)) && readFileSync(join(root, FILE), 'utf8')).toBe(text ?? false);
    expect(existsSync(join(root, 'Tessel'))).toBe(text !== null);
  });

  test('in a bundle that is a link out of the station are left alone', async () => {
    const outside = join(root, '..', 'outside.json');
    writeFileSync(outside, BEFORE);
    mkdirSync(join(root, 'Tessel'));
    symlinkSync(outside, join(root, FILE));
    const { results } = await applier().apply(
      plan({ do: 'put', path: `${PLACE}/New`, sha256: content('{"bright":5}'), expect: null }),
    );
    expect(must(results[0]).outcome).toBe('conflict');
    expect(readFileSync(outside, 'utf8')).toBe(BEFORE);
  });

  test('leave the bundle to those to whom it belongs: who may read it stays as it is', async () => {
    const todo = scene();
    chmodSync(join(root, FILE), 0o600);
    await applier().apply(todo);
    expect(statSync(join(root, FILE)).mode & 0o777).toBe(0o600);
    expect(bundle().presets).toEqual(AFTER);
  });

  test('in a bundle that is no UTF-8 are left alone: it could not be written again as it was', async () => {
    const bytes = Buffer.from('{"presets": {}, "name": "Caf\xe9"}', 'latin1');
    write('');
    writeFileSync(join(root, FILE), bytes);
    const { results } = await applier().apply(
      plan({ do: 'put', path: `${PLACE}/New`, sha256: content('{"bright":5}'), expect: null }),
    );
    expect(must(results[0])).toMatchObject({
      outcome: 'conflict',
      message: `"${FILE}" is no UTF-8 text; it is left alone`,
    });
    expect(readFileSync(join(root, FILE))).toEqual(bytes);
  });

  test.each([
    [
      'wait for an editor that was started meanwhile',
      async () => applier({ running: async () => 'Tessel 7' }).apply(null),
    ],
    ['are dropped', async () => applier().drop()],
  ])('of which a killed run left half behind leave nothing of it when they %s', async (_, goOn) => {
    const todo = scene();
    const { steps } = JSON.parse(scratch.carryOut({ root, state, contents }, todo, 0).stdout) as { steps: number };
    let left = 0;
    for (let k = 1; k <= steps; k++) {
      ({ root, state, contents } = scratch.station());
      scratch.carryOut({ root, state, contents }, scene(), k);
      const path = join(root, 'Tessel/.etagere-0-tessel.json.part');
      if (!existsSync(path)) continue;
      left++;
      await goOn();
      expect(existsSync(path), `step ${k}`).toBe(false);
    }
    expect(left).toBeGreaterThan(0);
  });

  test('killed at every step: the next start finishes, the bundle is always whole, nothing of it is lost', () => {
    const run = (todo: Plan | null, dieAt: number) => scratch.carryOut({ root, state, contents }, todo, dieAt);
    const { steps } = JSON.parse(run(scene(), 0).stdout) as { steps: number };
    expect(steps).toBeGreaterThan(14);
    for (let k = 1; k <= steps; k++) {
      for (const folder of [root, state]) {
        rmSync(folder, { recursive: true, force: true });
        mkdirSync(folder);
      }
      const todo = scene();
      expect(run(todo, k).signal, `step ${k}`).toBe('SIGKILL');
      expect(bundle().presets?.Theirs, `step ${k}`).toEqual({ bright: 3 });
      const { results } = JSON.parse(run(todo, 0).stdout) as { results: OperationResult[] };
      expect(
        results.map(({ outcome, before }) => [outcome, before]),
        `step ${k}`,
      ).toEqual([
        ['done', null],
        ['done', sha('{"bright":1}')],
        ['done', sha('{"bright":2}')],
      ]);
      expect(bundle().presets, `step ${k}`).toEqual(AFTER);
    }
  });
});

describe('what lies in a bundle', () => {
  test('is reported entry by entry, whatever its layout; one that is half written has what it had', async () => {
    write(BEFORE);
    const first = await takeInventory(root, state, ['Looks', PLACE]);
    expect(first.files).toEqual([
      { path: `${PLACE}/Gone`, size: 12, sha256: sha('{"bright":2}') },
      { path: `${PLACE}/Old`, size: 12, sha256: sha('{"bright":1}') },
      { path: `${PLACE}/Theirs`, size: 12, sha256: sha('{"bright":3}') },
    ]);
    write(JSON.stringify(JSON.parse(BEFORE), null, 3));
    expect((await takeInventory(root, state, ['Looks', PLACE])).digest).toBe(first.digest);
    write('{"presets": {');
    expect((await takeInventory(root, state, ['Looks', PLACE])).digest).toBe(first.digest);
    write('{"presets": {}}');
    expect((await takeInventory(root, state, ['Looks', PLACE])).files).toEqual([]);
  });

  test('is sent when it is asked for', async () => {
    write(BEFORE);
    const sent: string[] = [];
    const wanted = ['Old', 'Nothing'].map((key) => ({
      path: `${PLACE}/${key}`,
      sha256: sha('{"bright":1}'),
      size: 12,
    }));
    const told = { places: [{ id: 'p', path: PLACE }], wanted } as unknown as Instructions;
    const server = {
      sendContent: async (_: string, path: string, bytes: Buffer) => void sent.push(`${path}${bytes.toString()}`),
    };
    expect(await sendWanted(server, root, told)).toBe(1);
    expect(sent).toEqual([`${PLACE}/Old{"bright":1}`]);
  });
});

describe('a short list in a bundle', () => {
  const LIST = 'Tessel/tessel.json#chosen/favorites';

  test('is read in canonical form, anew when the bundle has changed, and only where it is there', async () => {
    write('{"chosen": {"favorites": ["panes/b",  "panes/a"]}}');
    expect(await readIndexes(root, [LIST, 'Tessel/none.json#chosen/favorites'])).toEqual([
      { path: LIST, text: '["panes/b","panes/a"]' },
    ]);
    write('{"chosen": {"favorites": ["panes/b"]}, "more": 1}');
    expect(await readIndexes(root, [LIST])).toEqual([{ path: LIST, text: '["panes/b"]' }]);
    write('{"chosen": {}}');
    expect(await readIndexes(root, [LIST])).toEqual([]);
    write('{"chosen": ');
    expect(await readIndexes(root, [LIST])).toEqual([]);
  });

  test('is written like any entry, and nothing else of the bundle', async () => {
    write('{"chosen": {"favorites": ["panes/a"], "opening": {"x": 1.0}}}');
    const { results } = await applier({ places: ['Tessel/tessel.json#chosen', LIST] }).apply(
      plan({ do: 'put', path: LIST, sha256: content('["panes/b"]'), expect: sha('["panes/a"]') }),
    );
    expect(outcomes(results)).toEqual([['done', '']]);
    expect(readFileSync(join(root, FILE), 'utf8')).toContain('"opening": {"x": 1.0}');
    expect(bundle().chosen).toMatchObject({ favorites: ['panes/b'] });
  });
});
