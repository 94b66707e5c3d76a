/**
 * Whoever follows along. A process has one connection that listens and asks the log once for all its streams, however many
 * there are; a notification only wakes, the log is what is read.
 */
import pg from 'pg';
import { distinct } from '@/core/lists';
import { databaseUrl, pool } from '../db/pool';
import { livingSessions } from '../people/service';
import { allow, type Person } from '../people/roles';
import { eventsSince, isMoment, thisMoment, type EventRow, type Moment } from '../activity/queries';

export type LiveMessage = { type: 'event'; event: EventRow; moment: Moment } | { type: 'job'; id: string };

/** A stream: where messages go, and how it is ended when its session is. */
interface Stream {
  session: string;
  send: (message: LiveMessage) => void;
  end: () => void;
}

/** Catches what a lost listener left behind. */
const TICK_MS = 2000;
/** Sessions also end by themselves, when their time is over. */
const LOOK_AFTER_SESSIONS_MS = 15_000;

class Hub {
  private readonly streams = new Set<Stream>();
  private listener: Promise<pg.Client> | undefined;
  private timers: NodeJS.Timeout[] = [];
  private moment: Moment | undefined;
  private asking: Promise<void> | undefined;
  private askAgain = false;
  /** how often the log was asked, for those who measure */ asked = 0;

  /** Ready when the log is followed from a moment no later than now. */
  async add(stream: Stream): Promise<void> {
    this.streams.add(stream);
    if (this.streams.size === 1) this.begin();
    await this.listening();
    this.moment ??= await thisMoment(pool());
  }

  remove(stream: Stream): void {
    this.streams.delete(stream);
    if (this.streams.size > 0) return;
    this.timers.forEach(clearInterval);
    this.timers = [];
    // nobody listens: what comes about meanwhile is asked for by whoever comes next
    this.moment = undefined;
  }

  private begin(): void {
    const every = (ms: number, work: () => Promise<unknown>) =>
      setInterval(() => {
        void work().catch(() => {});
      }, ms);
    this.timers = [
      every(TICK_MS, async () => {
        await this.listening();
        await this.drain();
      }),
      every(LOOK_AFTER_SESSIONS_MS, () => this.endLost()),
    ];
  }

  private listening(): Promise<unknown> {
    this.listener ??= this.listen().catch((error: unknown) => {
      this.listener = undefined;
      throw error;
    });
    return this.listener.catch(() => {});
  }

  private async listen(): Promise<pg.Client> {
    const client = new pg.Client({ connectionString: databaseUrl() });
    const lost = () => {
      this.listener = undefined;
    };
    client.on('error', lost);
    client.on('end', lost);
    client.on('notification', ({ channel, payload }) => {
      if (channel === 'job') this.tell({ type: 'job', id: payload ?? '' });
      else if (channel === 'session') void this.endLost().catch(() => {});
      else void this.drain().catch(() => {});
    });
    await client.connect();
    await client.query('listen event; listen job; listen session');
    return client;
  }

  private tell(message: LiveMessage): void {
    for (const { send } of this.streams) send(message);
  }

  /** Asks once, whoever wakes it; woken while it asks, once more. */
  private drain(): Promise<void> {
    this.askAgain = true;
    this.asking ??= this.ask().finally(() => {
      this.asking = undefined;
    });
    return this.asking;
  }

  private async ask(): Promise<void> {
    while (this.askAgain && this.moment !== undefined) {
      this.askAgain = false;
      this.asked++;
      const { events, moment } = await eventsSince(pool(), this.moment);
      this.moment = moment;
      for (const event of events) this.tell({ type: 'event', event, moment });
    }
  }

  private async endLost(): Promise<void> {
    // those that join while it is asked are not among them
    const asked = [...this.streams];
    const living = await livingSessions(distinct(asked.map(({ session }) => session)));
    for (const stream of asked) {
      // two may ask at once, and one of them has ended it already
      if (!living.has(stream.session) && this.streams.has(stream)) stream.end();
    }
  }
}

const kept = globalThis as typeof globalThis & { etagereHub?: Hub };
export const hub = (): Hub => (kept.etagereHub ??= new Hub());

/** What happened since a moment, such as that at which a page was made. Of what is no moment, nothing. */
export async function since(person: Person, moment: string): Promise<{ events: EventRow[]; moment: Moment }> {
  allow(person, 'view');
  return isMoment(moment) ? eventsSince(pool(), moment) : { events: [], moment: await thisMoment(pool()) };
}

/** Sends what happens from now on until the signal aborts, or the session ends: then `end` is called. */
export async function follow(
  signal: AbortSignal,
  session: string,
  send: (message: LiveMessage) => void,
  end: () => void = () => {},
): Promise<void> {
  const leave = () => hub().remove(stream);
  const stream: Stream = {
    session,
    send,
    end: () => {
      leave();
      end();
    },
  };
  signal.addEventListener('abort', leave);
  await hub().add(stream);
}
