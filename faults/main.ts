/**
 * bin/test --faults [--rounds N] [--seed S]: a librarian's work on a whole installation, while its processes are killed at
 * random. The seed is printed; one that failed is kept and comes first the next time.
 */
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { parseArgs } from 'node:util';
import { seeded } from '@/core/random';
import { invariants, noteChangedByHand } from './invariants';
import { killing } from './killer';
import { work } from './round';
import { World } from './world';

const { values } = parseArgs({ options: { rounds: { type: 'string' }, seed: { type: 'string' } } });
const rounds = Number(values.rounds ?? 12);
const data = process.env.ETAGERE_FAULTS_DATA!;
const keptFile = join(dirname(data), 'failing-seeds.json');
const kept = existsSync(keptFile) ? (JSON.parse(readFileSync(keptFile, 'utf8')) as number[]) : [];
const seeds = values.seed ? [Number(values.seed)] : [...kept, Math.floor(Math.random() * 1e9)];
const say = (text: string) => process.stderr.write(`faults: ${text}\n`);
let passed = 0;
const failures: string[] = [];

/** One round; what does not hold afterwards is a failure with its seed. */
async function round(world: World, seed: number, number: number): Promise<void> {
  const next = seeded(seed + number * 7919);
  const end = new AbortController();
  const killed = killing(world, seeded(seed * 31 + number), end.signal);
  try {
    const done = await work(world, seed, number, next, number % 3 === 2);
    end.abort();
    say(`round ${number + 1} of seed ${seed}: ${(await killed).join(', ') || 'nothing was killed'}`);
    for (const { name, look } of invariants) {
      let wrong: string | null = 'it could not be looked at';
      await world.until(name, async () => (wrong = await look(world, done)) === null, 60_000).catch(() => {});
      if (wrong === null) passed++;
      else failures.push(`seed ${seed}, round ${number + 1}: ${name}: ${wrong}`);
    }
  } catch (error) {
    end.abort();
    failures.push(`seed ${seed}, round ${number + 1}, after ${(await killed).join(', ')}: ${(error as Error).message}`);
  }
}

const world = new World(data);
const bad = new Set<number>();
for (const seed of seeds) {
  say(`seed ${seed}, ${rounds} rounds`);
  try {
    await world.start();
    await noteChangedByHand(world);
    for (let number = 0; number < rounds; number++) {
      const before = failures.length;
      await round(world, seed, number);
      if (failures.length > before) bad.add(seed);
    }
  } finally {
    await world.stop();
  }
}
if (!values.seed) {
  mkdirSync(dirname(keptFile), { recursive: true });
  writeFileSync(keptFile, JSON.stringify([...bad]));
}
for (const failure of failures) say(failure);
console.log(JSON.stringify({ passed, failed: failures.length }));
process.exit(0);
