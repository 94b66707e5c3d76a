// Who runs in a data folder. A process is known by its number and by the moment at which it began, as numbers are given out again.
import { existsSync, linkSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';

/** When a process began, in ticks since the machine did (proc(5), field 22 of stat); "" where no one can tell, null where there is none. */
export function beganAt(pid) {
  try {
    process.kill(pid, 0);
  } catch (error) {
    if (error.code !== 'EPERM') return null;
  }
  if (!existsSync('/proc/self/stat')) return '';
  try {
    const stat = readFileSync(`/proc/${pid}/stat`, 'utf8');
    const fields = stat.slice(stat.lastIndexOf(')') + 2).split(' ');
    // a dead child that nobody has asked for yet still has a number
    return fields[0] === 'Z' ? null : fields[19];
  } catch {
    return null;
  }
}

export const self = () => ({ pid: process.pid, began: beganAt(process.pid) });

export const lives = ({ pid, began }) => {
  const now = beganAt(pid);
  return now !== null && now === began;
};

const readAll = (file) => {
  try {
    return JSON.parse(readFileSync(file, 'utf8'));
  } catch {
    return null;
  }
};

/**
 * Takes a folder for oneself, by a file that there is once: of any number that try at the same time, one succeeds.
 * @returns null where it was taken, else who has it
 */
export function take(file, me = self()) {
  const mine = `${file}.${me.pid}`;
  writeFileSync(mine, JSON.stringify(me), { mode: 0o600 });
  try {
    for (;;) {
      try {
        linkSync(mine, file);
        return null;
      } catch (error) {
        if (error.code !== 'EEXIST') throw error;
      }
      const holder = readAll(file);
      if (holder && lives(holder)) return holder;
      setAside(file, `${mine}.old`);
    }
  } finally {
    rmSync(mine, { force: true });
  }
}

/** Takes a dead one's file away; one that somebody alive has put there meanwhile is put back. */
function setAside(file, aside) {
  try {
    renameSync(file, aside);
  } catch (error) {
    if (error.code === 'ENOENT') return;
    throw error;
  }
  const found = readAll(aside);
  if (found && lives(found)) linkSync(aside, file);
  rmSync(aside, { force: true });
}

export function giveBack(file, me = self()) {
  if (readAll(file)?.pid === me.pid) rmSync(file, { force: true });
}

/** Notes a child beside its starter, so that the next start finds it where the starter was killed. */
export function noteChildren(file, children) {
  writeFileSync(`${file}.new`, JSON.stringify(children), { mode: 0o600 });
  renameSync(`${file}.new`, file);
}

/** Ends what a killed starter has left running; nothing else that bears such a number by now. */
export async function endOrphans(file, say) {
  for (const { name, ...child } of readAll(file) ?? []) {
    if (!lives(child)) continue;
    say(`ending ${name}, which a start that was killed left behind`);
    process.kill(child.pid, 'SIGTERM');
    for (const until = Date.now() + 6000; lives(child) && Date.now() < until;)
      await new Promise((done) => setTimeout(done, 50));
    if (lives(child)) process.kill(child.pid, 'SIGKILL');
  }
  rmSync(file, { force: true });
}
