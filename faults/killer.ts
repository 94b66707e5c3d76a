/** Kills at random what a round depends on, one thing after the other, as a seed has it. */
import { setTimeout as wait } from 'node:timers/promises';
import type { World } from './world';

type Target = 'web' | 'worker' | 'agent' | 'backend' | 'postmaster';
/** How often each is chosen. */
const CHOICES: readonly Target[] = [
  'web',
  'web',
  'worker',
  'worker',
  'worker',
  'agent',
  'agent',
  'backend',
  'backend',
  'postmaster',
];
const MOST_KILLS = 5;

const kill = (pid: number | null | undefined): boolean => {
  if (!pid) return false;
  try {
    process.kill(pid, 'SIGKILL');
    return true;
  } catch {
    return false;
  }
};

async function strike(world: World, target: Target, next: () => number): Promise<boolean> {
  const pick = <T>(list: readonly T[]): T | undefined => list[Math.floor(next() * list.length)];
  if (target === 'postmaster') return kill(world.postmaster());
  if (target === 'backend') {
    const [backend] = await world.sql<{ pid: number }>(
      `
        select pid
        from pg_stat_activity
        where datname = 'etagere' and pid <> pg_backend_pid()
        order by md5(pid::text || $1)
        limit 1
      `,
      [String(next())],
    );
    if (!backend) return false;
    await world.sql('select pg_terminate_backend($1)', [backend.pid]);
    return true;
  }
  return kill(pick(world.children().filter(({ name }) => name.startsWith(target)))?.pid);
}

/** Kills until the signal aborts, at most a few times, so that a round comes to an end; tells what it did. */
export async function killing(world: World, next: () => number, signal: AbortSignal): Promise<string[]> {
  const began = Date.now();
  const done: string[] = [];
  for (let kills = 0; kills < MOST_KILLS && !signal.aborted; kills++) {
    await wait(200 + next() * 2800, undefined, { signal }).catch(() => {});
    if (signal.aborted) break;
    const target = CHOICES[Math.floor(next() * CHOICES.length)]!;
    const struck = await strike(world, target, next).catch(() => false);
    if (struck) done.push(`${target} at ${((Date.now() - began) / 1000).toFixed(1)} s`);
  }
  return done;
}
