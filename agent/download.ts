/** Contents on their way to a file: gone on with where they broke off, no faster than they may come, never waited for without an end. */
import { createWriteStream } from 'node:fs';
import { stat } from 'node:fs/promises';
import { Readable, Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { setTimeout as wait } from 'node:timers/promises';
import type { ReadableStream } from 'node:stream/web';

export interface Pace {
  /** bytes a second at most; without, as they come */ rate?: number;
  /** milliseconds without a byte after which it is broken off */ idle?: number;
}

const IDLE_MS = 60_000;

/** How many bytes of a content lie there from an earlier try. */
export const bytesThere = async (file: string): Promise<number> => (await stat(file).catch(() => null))?.size ?? 0;

/** Gives up where nothing comes for so long; while bytes are held back on purpose, nobody is waited for. */
class Patience {
  private timer: NodeJS.Timeout | undefined;

  constructor(
    private readonly idle: number,
    private readonly giveUp: (why: Error) => void,
  ) {}

  begin(): void {
    this.end();
    this.timer = setTimeout(() => this.giveUp(new Error(`nothing came for ${this.idle / 1000} s`)), this.idle);
  }

  end(): void {
    clearTimeout(this.timer);
  }
}

/** Lets bytes through at the given rate. */
function paced({ rate }: Pace, patience: Patience): Transform {
  const began = Date.now();
  let through = 0;
  return new Transform({
    transform(chunk: Buffer, _encoding, done) {
      patience.end();
      through += chunk.length;
      const due = rate ? began + (1000 * through) / rate - Date.now() : 0;
      const pass = (): void => {
        patience.begin();
        done(null, chunk);
      };
      if (due > 0) void wait(due).then(pass);
      else pass();
    },
  });
}

/**
 * Asks for a content, from where the file ends, and writes what comes.
 * @param ask with the byte from which it is wanted; answers null where the server has nothing from there on
 */
export async function download(
  ask: (from: number, signal: AbortSignal) => Promise<Response | null>,
  to: string,
  pace: Pace = {},
): Promise<void> {
  const broken = new AbortController();
  const patience = new Patience(pace.idle ?? IDLE_MS, (why) => broken.abort(why));
  patience.begin();
  try {
    const had = await bytesThere(to);
    const response = (await ask(had, broken.signal)) ?? (await ask(0, broken.signal));
    if (!response?.body) throw new Error('the server sent nothing');
    // one that knows nothing of beginnings in the middle sends all of it
    const flags = response.status === 206 ? 'a' : 'w';
    const body = Readable.fromWeb(response.body as ReadableStream);
    await pipeline(body, paced(pace, patience), createWriteStream(to, { flags }));
  } finally {
    patience.end();
  }
}
