// Keeps programs running: one that ends is started again, at once if it had run for a while, later and later if it keeps ending.
import { spawn } from 'node:child_process';
import { beganAt } from './running.mjs';

const SHORTEST_MS = 400;
const LONGEST_MS = 30_000;
/** One that has run for so long is taken to be well. */
const WELL_AFTER_MS = 30_000;

/** The pause before the next start, after so many that ended early in a row. */
export const pauseAfter = (early) => Math.min(LONGEST_MS, SHORTEST_MS * 2 ** Math.max(0, early - 1));

/**
 * @param onChange is told who runs now: [{ name, pid, began }]
 */
export function supervisor({ say, onChange = () => {}, spawnWith = spawn }) {
  const running = new Map();
  const timers = new Set();
  let ending = false;
  const told = () => onChange([...running.values()].map(({ child: _child, ...known }) => known));

  /** @param prepare is waited for before each start, such as for a database that has to be there */
  function keep(name, command, args, options = {}, prepare = async () => {}) {
    let early = 0;
    const begin = async () => {
      await prepare().catch((error) => say(`${name}: ${error.message}`));
      if (ending) return;
      const since = Date.now();
      const child = spawnWith(command, args, options);
      running.set(name, { name, pid: child.pid, began: beganAt(child.pid), child });
      told();
      let ended = false;
      const again = (how) => {
        if (ended) return;
        ended = true;
        running.delete(name);
        told();
        if (ending) return;
        early = Date.now() - since > WELL_AFTER_MS ? 1 : early + 1;
        const pause = pauseAfter(early);
        say(`${name} ended (${how}), starting it again${pause > 1000 ? ` in ${Math.round(pause / 1000)} s` : ''}`);
        const timer = setTimeout(() => {
          timers.delete(timer);
          void begin();
        }, pause);
        timers.add(timer);
      };
      child.on('exit', (code, signal) => again(signal ?? code));
      child.on('error', (error) => again(error.message));
    };
    void begin();
  }

  /** Ends them all; what does not go by itself within some seconds is killed. */
  async function end(patienceMs = 6000) {
    ending = true;
    for (const timer of timers) clearTimeout(timer);
    const children = [...running.values()].map(({ child }) => child);
    for (const child of children) child.kill('SIGTERM');
    const gone = Promise.all(
      children.map(
        (child) =>
          new Promise((done) =>
            child.exitCode !== null || child.signalCode !== null ? done() : child.once('exit', done),
          ),
      ),
    );
    await Promise.race([gone, new Promise((done) => setTimeout(done, patienceMs))]);
    for (const child of children) if (child.exitCode === null && child.signalCode === null) child.kill('SIGKILL');
  }

  return { keep, end, isEnding: () => ending };
}
