import { must } from '@/core/must';
import {
  chmodSync,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  symlinkSync,
  utimesSync,
  writeFileSync,
} from 'node:fs';
import { dirname, join } from 'node:path';
import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest';
import type { Operation, OperationResult, Plan } from '@/core/sync/protocol';
import { ServerError } from './faults';
import { Applier, reversed } from './apply';
import { takeInventory } from './inventory';
import { Scratch, sha } from './testing/scratch';

const scratch = new Scratch('etagere-agent-');
let root = '';
let state = '';
let contents = '';

beforeAll(() => scratch.buildProgram());
afterAll(() => scratch.remove());
beforeEach(() => {
  ({ root, state, contents } = scratch.station());
});

const file = (path: string, text: string): void => {
  mkdirSync(dirname(join(root, path)), { recursive: true });
  writeFileSync(join(root, path), text);
};
const content = (text: string): string => {
  writeFileSync(join(contents, sha(text)), text);
  return sha(text);
};
function tree(at = root): Record<string, string> {
  const out: Record<string, string> = {};
  const walk = (path: string): void => {
    for (const name of readdirSync(path).sort()) {
      const file = join(path, name);
      if (statSync(file).isDirectory()) {
        out[`${file.slice(at.length + 1)}/`] = '';
        walk(file);
      } else out[file.slice(at.length + 1)] = readFileSync(file, 'utf8');
    }
  };
  walk(at);
  return out;
}
const id = '01a210e5-4862-76ff-8bf1-cca38cebf5bd';
const plan = (...ops: Omit<Operation, 'n' | 'place' | 'size'>[]): Plan => ({
  id,
  operations: ops.map((o, i) => ({ n: i, place: 'looks', size: 1, ...o })),
});
const applier = (step?: (s: string) => void) =>
  new Applier({
    root,
    state,
    places: ['Looks', 'Presets'],
    fetch: async (text, to) => {
      if (!existsSync(join(contents, text))) throw new ServerError('There is no such content.');
      writeFileSync(to, readFileSync(join(contents, text)));
    },
    ...(step ? { step } : {}),
  });

/** New file in new folders, replacement, removal: every kind of operation. */
function scene(): Plan {
  file('Looks/old.cube', 'old');
  file('Looks/gone.cube', 'gone');
  file('Looks/theirs.cube', 'theirs');
  return plan(
    { do: 'put', path: 'Looks/A/B/new.cube', sha256: content('new'), expect: null },
    { do: 'put', path: 'Looks/old.cube', sha256: content('newer'), expect: sha('old') },
    { do: 'remove', path: 'Looks/gone.cube', sha256: null, expect: sha('gone') },
  );
}
const after = {
  'Looks/': '',
  'Looks/A/': '',
  'Looks/A/B/': '',
  'Looks/A/B/new.cube': 'new',
  'Looks/old.cube': 'newer',
  'Looks/theirs.cube': 'theirs',
};
const before = { 'Looks/': '', 'Looks/gone.cube': 'gone', 'Looks/old.cube': 'old', 'Looks/theirs.cube': 'theirs' };

describe('a plan', () => {
  test('is carried out, said, and taken back so that all is as it was', async () => {
    const plan = scene();
    const a = applier();
    const { results } = await a.apply(plan);
    expect(results.map((r) => [r.outcome, r.before])).toEqual([
      ['done', null],
      ['done', sha('old')],
      ['done', sha('gone')],
    ]);
    expect(tree()).toEqual(after);
    await a.close();
    const back = await applier().apply(reversed(plan, results));
    expect(back.results.map((r) => r.outcome)).toEqual(['done', 'done', 'done']);
    expect(tree()).toEqual(before);
  });

  test('leaves a file alone that was changed, made or taken away by hand since, and says conflict', async () => {
    const plan = scene();
    file('Looks/old.cube', 'edited by hand');
    file('Looks/A/B/new.cube', 'made by hand');
    rmSync(join(root, 'Looks/gone.cube'));
    const there = tree();
    const { results } = await applier().apply(plan);
    expect(results.map((r) => r.outcome)).toEqual(['conflict', 'conflict', 'conflict']);
    expect(must(results[1]).message).toContain('changed here since');
    expect(tree()).toEqual(there);
  });

  test('does not write over what appears between the look and the rename', async () => {
    const plan = scene();
    const { results } = await applier((text) => {
      if (text === 'copy' && !existsSync(join(root, 'Looks/A/B/new.cube'))) file('Looks/A/B/new.cube', 'quick hand');
    }).apply(plan);
    expect(must(results[0]).outcome).toBe('conflict');
    expect(tree()['Looks/A/B/new.cube']).toBe('quick hand');
    expect(Object.keys(tree()).filter((f) => f.includes('.part'))).toEqual([]);
  });

  test('never writes outside the allowed folders, nor through a link that leaves the root', async () => {
    const outside = join(root, '..', 'outside');
    mkdirSync(outside);
    mkdirSync(join(root, 'Looks'));
    symlinkSync(outside, join(root, 'Looks/link'));
    writeFileSync(join(outside, 'x'), 'x');
    symlinkSync(join(outside, 'x'), join(root, 'Looks/x.cube'));
    const { results } = await applier().apply(
      plan(
        { do: 'put', path: 'Elsewhere/a.cube', sha256: content('a'), expect: null },
        { do: 'put', path: 'Looks/link/a.cube', sha256: content('a'), expect: null },
        { do: 'put', path: 'Looks/x.cube', sha256: content('a'), expect: null },
      ),
    );
    expect(results.map((r) => r.outcome)).toEqual(['failed', 'conflict', 'conflict']);
    expect(readdirSync(outside)).toEqual(['x']);
    expect(readFileSync(join(outside, 'x'), 'utf8')).toBe('x');
    expect(existsSync(join(root, 'Elsewhere'))).toBe(false);
  });

  test('does not write through a link that is planted under its own passing name', async () => {
    const outside = join(root, '..', 'planted');
    writeFileSync(outside, 'precious');
    mkdirSync(join(root, 'Looks'), { recursive: true });
    const part = join(root, 'Looks/.etagere-0-a.cube.part');
    symlinkSync(outside, part);
    const put = plan({ do: 'put', path: 'Looks/a.cube', sha256: content('a'), expect: null });
    const first = await applier().apply(put);
    expect(must(first.results[0]).outcome).toBe('done');
    expect(tree()['Looks/a.cube']).toBe('a');
    expect(readFileSync(outside, 'utf8')).toBe('precious');
  });

  test('notices that another file was put under that name before it is moved', async () => {
    const outside = join(root, '..', 'swapped');
    writeFileSync(outside, 'precious');
    mkdirSync(join(root, 'Looks'), { recursive: true });
    const part = join(root, 'Looks/.etagere-0-a.cube.part');
    // as soon as the part is there, somebody takes it away and plants a link
    const watcher = setInterval(() => {
      if (!existsSync(part)) return;
      rmSync(part, { force: true });
      symlinkSync(outside, part);
      clearInterval(watcher);
    }, 0);
    const large = 'a'.repeat(60 << 20);
    const { results } = await applier().apply(
      plan({ do: 'put', path: 'Looks/a.cube', sha256: content(large), expect: null }),
    );
    clearInterval(watcher);
    expect(results[0]).toMatchObject({
      outcome: 'conflict',
      message: expect.stringContaining('being written') as string,
    });
    expect(existsSync(join(root, 'Looks/a.cube'))).toBe(false);
    expect(readFileSync(outside, 'utf8')).toBe('precious');
  });

  test('that finds the very same file there already is in step, and taken back nothing is lost', async () => {
    file('Looks/a.cube', 'same');
    const put = plan({ do: 'put', path: 'Looks/a.cube', sha256: content('same'), expect: null });
    const made = applier();
    const { results } = await made.apply(put);
    expect(results[0]).toMatchObject({ outcome: 'done', before: sha('same') });
    await made.close();
    const back = await applier().apply(reversed(put, results));
    expect(must(back.results[0]).outcome).toBe('done');
    expect(tree()['Looks/a.cube']).toBe('same');
  });

  test('whose contents break off on the way is gone on with in a later round, and given up after ten', async () => {
    let breaks = 3;
    const broken = () =>
      new Applier({
        root,
        state,
        places: ['Looks'],
        fetch: async (text, to) => {
          if (breaks-- > 0) throw new TypeError('fetch failed');
          writeFileSync(to, readFileSync(join(contents, text)));
        },
      });
    const put = plan(
      { do: 'put', path: 'Looks/a.cube', sha256: content('a'), expect: null },
      { do: 'put', path: 'Looks/b.cube', sha256: content('b'), expect: null },
    );
    await expect(broken().apply(put)).rejects.toThrow('fetch failed');
    await expect(broken().apply(null)).rejects.toThrow('fetch failed');
    await expect(broken().apply(null)).rejects.toThrow('fetch failed');
    const last = broken();
    expect((await last.apply(null)).results.map(({ outcome }) => outcome)).toEqual(['done', 'done']);
    await last.close();

    breaks = 10;
    const again = plan(
      { do: 'put', path: 'Looks/c.cube', sha256: content('c'), expect: null },
      { do: 'put', path: 'Looks/d.cube', sha256: content('d'), expect: null },
    );
    await expect(broken().apply(again)).rejects.toThrow();
    for (let round = 0; round < 8; round++) await expect(broken().apply(null)).rejects.toThrow();
    const { results } = await broken().apply(null);
    expect(results).toMatchObject([
      { outcome: 'failed', message: expect.stringContaining('10 times') as string },
      { outcome: 'done' },
    ]);
  });

  test('whose contents are gone on with from a damaged beginning fetches them once more as a whole', async () => {
    const good = content('good contents');
    let tries = 0;
    /** Appends to what is there, as a download does that is gone on with. */
    const resuming = () =>
      new Applier({
        root,
        state,
        places: ['Looks'],
        fetch: async (text, to) => {
          tries++;
          const whole = readFileSync(join(contents, text));
          const had = existsSync(to) ? readFileSync(to) : Buffer.alloc(0);
          if (tries === 1) {
            writeFileSync(to, 'gXXd');
            throw new TypeError('terminated');
          }
          writeFileSync(to, Buffer.concat([had, whole.subarray(had.length)]));
        },
      });
    const put = plan({ do: 'put', path: 'Looks/a.cube', sha256: good, expect: null });
    await expect(resuming().apply(put)).rejects.toThrow('terminated');
    await expect(resuming().apply(null)).rejects.toThrow('fetched anew');
    const last = resuming();
    expect((await last.apply(null)).results.map(({ outcome }) => outcome)).toEqual(['done']);
    await last.close();
    expect([tries, readFileSync(join(root, 'Looks/a.cube'), 'utf8')]).toEqual([3, 'good contents']);
  });

  test('that the server does not know any more is forgotten: what it did stays, and the next one may come', async () => {
    const stopped = new Error('stopped');
    let copies = 0;
    const broken = applier((name) => {
      if (name === 'rename' && ++copies === 2) throw stopped;
    });
    const put = plan(
      { do: 'put', path: 'Looks/a.cube', sha256: content('a'), expect: null },
      { do: 'put', path: 'Looks/b.cube', sha256: content('b'), expect: null },
    );
    await broken.apply(put);
    file('Looks/.etagere-1-b.cube.part', 'half');
    const next = applier();
    await next.drop();
    expect(await next.open()).toBeNull();
    expect(Object.keys(tree())).toEqual(['Looks/', 'Looks/a.cube']);
    const after = await next.apply({ ...put, operations: put.operations.slice(1) });
    expect(after.results.map(({ outcome }) => outcome)).toEqual(['done']);
  });

  test('contents that arrive damaged are not written', async () => {
    const good = content('good');
    writeFileSync(join(contents, good), 'tampered');
    const { results } = await applier().apply(plan({ do: 'put', path: 'Looks/a.cube', sha256: good, expect: null }));
    expect(results[0]).toMatchObject({ outcome: 'failed', message: 'the contents arrived damaged' });
    expect(existsSync(join(root, 'Looks/a.cube'))).toBe(false);
  });

  test('a folder where a file should go is a conflict', async () => {
    mkdirSync(join(root, 'Looks/a.cube'), { recursive: true });
    expect(
      must(
        (await applier().apply(plan({ do: 'put', path: 'Looks/a.cube', sha256: content('a'), expect: null })))
          .results[0],
      ).outcome,
    ).toBe('conflict');
  });

  test('one that fails does not stop the others', async () => {
    const missing = sha('never delivered');
    const { results } = await applier().apply(
      plan(
        { do: 'put', path: 'Looks/a.cube', sha256: missing, expect: null },
        { do: 'put', path: 'Looks/b.cube', sha256: content('b'), expect: null },
      ),
    );
    expect(results.map((r) => r.outcome)).toEqual(['failed', 'done']);
  });
});

test('what lies there already is not written again, and is told with the time at which it came there', async () => {
  file('Looks/a.cube', 'a');
  const came = new Date('2026-01-02T03:04:05.000Z');
  utimesSync(join(root, 'Looks/a.cube'), came, came);
  const steps: string[] = [];
  const { results } = await applier((name) => steps.push(name)).apply(
    plan({ do: 'put', path: 'Looks/a.cube', sha256: sha('a'), expect: sha('a') }),
  );
  expect(results).toEqual([{ n: 0, outcome: 'done', message: '', before: sha('a'), at: came.toISOString() }]);
  expect(steps).not.toContain('stage');
});

describe('kill -9', () => {
  /** Runs the plan in a process of its own, killed before its step number `dieAt`; 0 lets it live. */
  const run = (plan: Plan | null, dieAt: number) => scratch.carryOut({ root, state, contents }, plan, dieAt);

  test('at every step of the journal: the next start finishes, nothing is lost, nothing is half', () => {
    const probe = JSON.parse(run(scene(), 0).stdout) as { steps: number };
    expect(probe.steps).toBeGreaterThan(14);
    const reached = new Set<string>();
    for (let k = 1; k <= probe.steps; k++) {
      for (const entry of [root, state]) {
        rmSync(entry, { recursive: true, force: true });
        mkdirSync(entry);
      }
      const plan = scene();
      const killed = run(plan, k);
      expect(killed.signal, `step ${k}`).toBe('SIGKILL');
      // at the moment of the crash every file is either the old or the new one, whole
      const torn = tree();
      for (const [path, text] of Object.entries(torn))
        if (!path.endsWith('/') && !path.includes('.part'))
          expect([before[path as never], after[path as never]], `step ${k}, ${path}`).toContain(text);
      reached.add(JSON.stringify(torn));
      const again = run(plan, 0);
      expect(again.stderr).toBe('');
      const { results } = JSON.parse(again.stdout) as { results: OperationResult[] };
      expect(
        results.map((r) => [r.outcome, r.before]),
        `step ${k}`,
      ).toEqual([
        ['done', null],
        ['done', sha('old')],
        ['done', sha('gone')],
      ]);
      expect(tree(), `step ${k}`).toEqual(after);
    }
    expect(reached.size).toBeGreaterThan(4); // the crashes really struck at different states
  });

  test('twice in a row, at different steps, and the plan can still be undone', async () => {
    const plan = scene();
    run(plan, 8);
    run(plan, 5);
    const { results } = JSON.parse(run(plan, 0).stdout) as { results: OperationResult[] };
    await applier().close();
    await applier().apply(reversed(plan, results));
    expect(tree()).toEqual(before);
  });

  test('what someone changed between crash and restart stays theirs', () => {
    const plan = scene();
    run(plan, 3);
    file('Looks/old.cube', 'edited meanwhile');
    const { results } = JSON.parse(run(plan, 0).stdout) as { results: OperationResult[] };
    expect(results.map((r) => r.outcome)).toEqual(['done', 'conflict', 'done']);
    expect(tree()['Looks/old.cube']).toBe('edited meanwhile');
  });
});

describe('the inventory', () => {
  test('reads a file again only when it changed, and keeps the same digest for the same files', async () => {
    file('Looks/a.cube', 'a');
    file('Looks/b/c.cube', 'c');
    file('Other/x', 'x');
    file('Looks/.etagere-1-x.part', 'p');
    const one = await takeInventory(root, state, ['Looks', 'Looks/b']);
    expect(one.files.map((f) => f.path)).toEqual(['Looks/a.cube', 'Looks/b/c.cube']);
    expect(must(one.files[0]).sha256).toBe(sha('a'));
    chmodSync(join(root, 'Looks/a.cube'), 0o644);
    expect((await takeInventory(root, state, ['Looks', 'Looks/b'])).digest).toBe(one.digest);
    file('Looks/a.cube', 'changed');
    expect((await takeInventory(root, state, ['Looks', 'Looks/b'])).digest).not.toBe(one.digest);
  });
});
