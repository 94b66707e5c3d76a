/** Requests are answered a few at a time, in the order in which they came. */

/** What turns need to know of an answer: when it is through, and whether anybody still waits for it. */
export interface Answer {
  once(event: 'close', listener: () => void): unknown;
  readonly destroyed: boolean;
}

interface Waiting {
  answer: Answer;
  work: () => void;
}

/** What the latest turn counts of the pace. */
const NEW_SHARE = 0.1;

/**
 * Where a hundred pages are painted at once, each of them waits at every step for all the others, those of many steps the
 * longest, and all of their memory is held meanwhile. In turns, each waits once.
 *
 * A turn ends with its answer, or after `longestMs`: streams, uploads and what is computed elsewhere keep nobody waiting.
 */
export class Turns {
  private readonly queue: Waiting[] = [];
  private taken = 0;
  /** milliseconds from one turn to the next, while others wait */ private pace = 0;
  private lastTurn = 0;

  constructor(
    private readonly most: number,
    private readonly longestMs: number,
  ) {}

  /** Does `work` when its turn has come; not at all if whoever asked has left by then. */
  take(answer: Answer, work: () => void): void {
    if (this.taken < this.most) {
      this.begin({ answer, work });
      return;
    }
    // what lies before the first who waits says nothing of the pace
    if (!this.queue.length) this.lastTurn = performance.now();
    this.queue.push({ answer, work });
  }

  /** How many wait for their turn. */
  get waiting(): number {
    return this.queue.length;
  }

  /** How long whoever comes now will wait, in milliseconds, by how turns have come of late. */
  get wait(): number {
    return this.queue.length * this.pace;
  }

  private begin({ answer, work }: Waiting): void {
    this.taken++;
    let over = false;
    const end = () => {
      if (over) return;
      over = true;
      clearTimeout(timer);
      this.taken--;
      this.next();
    };
    const timer = setTimeout(end, this.longestMs);
    answer.once('close', end);
    work();
  }

  private notePace(): void {
    const now = performance.now();
    const took = Math.min(now - this.lastTurn, this.longestMs);
    this.pace = this.pace ? this.pace + (took - this.pace) * NEW_SHARE : took;
    this.lastTurn = now;
  }

  private next(): void {
    for (let one = this.queue.shift(); one; one = this.queue.shift()) {
      if (one.answer.destroyed) continue;
      this.notePace();
      this.begin(one);
      return;
    }
  }
}
