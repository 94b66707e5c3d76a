/** Wakes whoever follows along: one LISTEN connection a process, shared by all streams. */
import pg from 'pg';
import { databaseUrl, pool } from '../db/pool';
import { allow, type Person } from '../people/roles';
import { eventsAfter, lastEventId, type EventRow } from '../activity/queries';

type Waker = (channel: string, payload: string) => void;
const kept = globalThis as typeof globalThis & { etagereWakers?: Set<Waker>; etagereListener?: Promise<pg.Client> };

async function listen(wakers: Set<Waker>): Promise<pg.Client> {
  const client = new pg.Client({ connectionString: databaseUrl() });
  await client.connect();
  client.on('notification', (notification) => {
    for (const w of wakers) w(notification.channel, notification.payload ?? '');
  });
  client.on('error', () => {
    kept.etagereListener = undefined;
  });
  client.on('end', () => {
    kept.etagereListener = undefined;
  });
  await client.query('listen event; listen job');
  return client;
}

export const eventsSince = (person: Person, after: number): Promise<EventRow[]> => {
  allow(person, 'view');
  return eventsAfter(pool(), after);
};
export const newestEvent = (): Promise<number> => lastEventId(pool());

export type LiveMessage = { type: 'event'; event: EventRow } | { type: 'job'; id: string };

/** Sends events from now on, and job wakes, until the signal aborts. A notification only wakes; the log is what is read. */
export async function follow(signal: AbortSignal, send: (m: LiveMessage) => void): Promise<void> {
  const wakers = (kept.etagereWakers ??= new Set());
  let at = await lastEventId(pool());
  let busy = false;
  let again = false;
  const drain = async (): Promise<void> => {
    if (busy) {
      again = true;
      return;
    }
    busy = true;
    try {
      do {
        again = false;
        for (const event of await eventsAfter(pool(), at)) {
          at = event.id;
          send({ type: 'event', event });
        }
      } while (again && !signal.aborted);
    } catch {
      /* the next wake tries again */
    } finally {
      busy = false;
    }
  };
  const waker: Waker = (channel, payload) => {
    if (channel === 'job') send({ type: 'job', id: payload });
    else void drain();
  };
  wakers.add(waker);
  // the tick catches what a lost listener or a transaction still open at the wake left behind
  const timer = setInterval(() => {
    kept.etagereListener ??= listen(wakers);
    void drain();
  }, 2000);
  signal.addEventListener('abort', () => {
    wakers.delete(waker);
    clearInterval(timer);
  });
  await (kept.etagereListener ??= listen(wakers)).catch(() => {
    kept.etagereListener = undefined;
  });
}
