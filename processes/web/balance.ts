/**
 * Several web processes, of which none keeps people waiting longer than the others.
 *
 * Connections are shared out when they are made, to whichever process takes them first, and browsers keep them: of a hundred,
 * one process was seen to have 64 and the other 36, whose people were answered half as quickly again. So each process says
 * how long it is waited for; where that is longer than elsewhere, it lets connections go behind their answers, and whoever
 * asks again is taken by any of them.
 */
import type { Worker } from 'node:cluster';

const TELL_MS = 200;
/** What is taken for the same: a tenth more, and a tenth of a second. */
const MORE = 1.1;
const LITTLE_MS = 100;

interface WaitTold {
  /** how long whoever comes now will wait, in milliseconds */ etagereWait: number;
}
const isWaitTold = (message: unknown): message is WaitTold =>
  typeof message === 'object' && message !== null && typeof (message as WaitTold).etagereWait === 'number';

/** Whether a process is waited for longer than processes are in the mean. */
export const isBehind = (own: number, mean: number): boolean => own > mean * MORE + LITTLE_MS;

/** In the process above: hears from each how long it is waited for, and tells all of them the mean. */
export function keepBalance(workers: () => readonly Worker[]): { hear(worker: Worker, message: unknown): void } {
  const waits = new Map<number, number>();
  let told = 0;
  setInterval(() => {
    const all = workers();
    const mean = all.reduce((sum, { id }) => sum + (waits.get(id) ?? 0), 0) / (all.length || 1);
    if (mean === 0 && told === 0) return;
    told = mean;
    for (const worker of all) if (worker.isConnected()) worker.send({ etagereWait: mean } satisfies WaitTold);
  }, TELL_MS).unref();
  return {
    hear: (worker, message) => {
      if (isWaitTold(message)) waits.set(worker.id, message.etagereWait);
    },
  };
}

/** What a process that answers needs of the one above it: the module `process`. */
export interface Above {
  send?: (message: unknown) => unknown;
  on(event: 'message', listener: (message: unknown) => void): unknown;
  readonly connected: boolean;
}

/** In a process that answers: whether the connection behind an answer should be let go. */
export function balanced(wait: () => number, above: Above): () => boolean {
  if (!above.send) return () => false;
  let mean = 0;
  let told = 0;
  above.on('message', (message) => {
    if (isWaitTold(message)) mean = message.etagereWait;
  });
  setInterval(() => {
    const own = wait();
    if ((own === 0 && told === 0) || !above.connected) return;
    told = own;
    above.send?.({ etagereWait: own } satisfies WaitTold);
  }, TELL_MS).unref();
  return () => isBehind(wait(), mean);
}
