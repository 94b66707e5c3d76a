/**
 * Random plans over random folders, killed again and again at random steps, and undone in the same way: whatever is torn off
 * where, nothing is lost, nothing is half, and what is somebody else's stays so.
 */
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { must } from '@/core/must';
import { seeded } from '@/core/random';
import type { Operation, OperationResult, Plan } from '@/core/sync/protocol';
import { tries } from '@/core/tries';
import { Applier, reversed } from './apply';
import { Scratch, sha, type ScratchStation } from './testing/scratch';

const scratch = new Scratch('etagere-kills-');
beforeAll(() => scratch.buildProgram());
afterAll(() => scratch.remove());

const NAMES = ['a', 'b', 'c', 'd', 'e'];
const FOLDERS = ['Looks', 'Looks/House', 'Presets'];

/** What lies at a station, by path. */
type Tree = Record<string, string>;

interface Scene {
  station: ScratchStation;
  before: Tree;
  plan: Plan;
  /** the texts of contents, by hash */ texts: Map<string, string>;
}

function treeOf(root: string, at = ''): Tree {
  const found: Tree = {};
  for (const name of readdirSync(join(root, at))) {
    const path = at ? `${at}/${name}` : name;
    if (statSync(join(root, path)).isDirectory()) Object.assign(found, treeOf(root, path));
    else found[path] = readFileSync(join(root, path), 'utf8');
  }
  return found;
}

const write = (root: string, path: string, text: string): void => {
  mkdirSync(dirname(join(root, path)), { recursive: true });
  writeFileSync(join(root, path), text);
};

/** A folder with some files, and a plan that puts new ones, writes over old ones, removes some, finds some in step and some changed. */
function sceneOf(random: () => number, number: number): Scene {
  const station = scratch.station();
  const texts = new Map<string, string>();
  const pick = <T>(from: readonly T[]): T => must(from[Math.floor(random() * from.length)]);
  const kept = (text: string): string => {
    texts.set(sha(text), text);
    writeFileSync(join(station.contents, sha(text)), text);
    return sha(text);
  };
  const before: Tree = {};
  for (const folder of FOLDERS)
    for (const name of NAMES)
      if (random() < 0.5) before[`${folder}/${name}.cube`] = `theirs ${number} ${folder} ${name}`;
  for (const [path, text] of Object.entries(before)) write(station.root, path, text);
  const paths = new Set(
    Array.from({ length: 3 + Math.floor(random() * 5) }, () => `${pick(FOLDERS)}/${pick(NAMES)}.cube`),
  );
  const operations = [...paths].map((path, n): Operation => {
    const there = before[path];
    const is = there === undefined ? null : sha(there);
    // somebody has changed it since the plan was made
    const expect = random() < 0.15 ? sha(`long ago ${path}`) : is;
    if (is !== null && random() < 0.3) return { n, do: 'remove', place: 'looks', path, sha256: null, size: 0, expect };
    // what is taken under care as it lies there is put without being written
    const text = there !== undefined && random() < 0.2 ? there : `ours ${number} ${path}`;
    return { n, do: 'put', place: 'looks', path, sha256: kept(text), size: text.length, expect };
  });
  const id = `00000000-0000-7000-8000-${String(number).padStart(12, '0')}`;
  return { station, before, plan: { id, operations }, texts };
}

/** Carries a plan out, killed before random steps until it is through. */
function throughKills(
  station: ScratchStation,
  plan: Plan,
  random: () => number,
): { results: OperationResult[]; kills: number } {
  for (let kills = 0; ; kills++) {
    const dieAt = kills < 12 ? 1 + Math.floor(random() * 25) : 0;
    const { signal, stdout, stderr } = scratch.carryOut(station, plan, dieAt);
    if (signal === 'SIGKILL') continue;
    expect(stderr).toBe('');
    return { ...(JSON.parse(stdout) as { results: OperationResult[] }), kills };
  }
}

/** What the tree is to be when a plan is through: done is done, and all else is as it was. */
function expected(
  before: Tree,
  plan: Plan,
  results: readonly OperationResult[],
  texts: ReadonlyMap<string, string>,
): Tree {
  const tree = { ...before };
  for (const { n, do: what, path, sha256 } of plan.operations) {
    if (must(results.find((one) => one.n === n)).outcome !== 'done') continue;
    if (what === 'remove') delete tree[path];
    else tree[path] = must(texts.get(must(sha256)));
  }
  return tree;
}

/** Closes the journal, as a round does that has told its results. */
const close = (station: ScratchStation): Promise<void> =>
  new Applier({ ...station, places: FOLDERS, fetch: async () => {} }).close();

const KILLS = tries(1000, 24);

test(
  `${KILLS} random kills over plans and their undoing`,
  async () => {
    let kills = 0;
    let conflicts = 0;
    for (let number = 1; kills < KILLS; number++) {
      const seed = 20261129 + number;
      const random = seeded(seed);
      const { station, before, plan, texts } = sceneOf(random, number);
      const done = throughKills(station, plan, random);
      const torn = plan.operations.filter(
        ({ n }) => must(done.results.find((one) => one.n === n)).outcome === 'conflict',
      );
      // only what was not as the plan expected is in conflict, and only where it is not there already
      for (const { path, expect: meant, sha256 } of torn) {
        const is = before[path] === undefined ? null : sha(must(before[path]));
        expect([is === meant, is === sha256], `seed ${seed}, ${path}`).toEqual([false, false]);
      }
      expect(treeOf(station.root), `seed ${seed}`).toEqual(expected(before, plan, done.results, texts));
      await close(station);
      // what the plan wrote over is taken from what the agent kept: the server has nothing of it
      rmSync(station.contents, { recursive: true });
      mkdirSync(station.contents);
      const undone = throughKills(station, reversed(plan, done.results), random);
      expect(treeOf(station.root), `seed ${seed}, undone`).toEqual(before);
      expect(
        undone.results.every(({ outcome }) => outcome === 'done'),
        `seed ${seed}, undone`,
      ).toBe(true);
      expect(existsSync(join(station.state, 'stage', plan.id))).toBe(false);
      kills += done.kills + undone.kills;
      conflicts += torn.length;
    }
    expect(conflicts).toBeGreaterThan(0);
  },
  tries(60, 4) * 60_000,
);
