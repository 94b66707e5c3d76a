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

/**
 * Where a hundred pages are painted at once, each of them waits at every step for all the others, those of many steps the
 * longest, and all of their memory is held meanwhile. In turns, each waits once.
 *
 * A turn ends with its answer, or after `longestMs`: streams, uploads and what is computed elsewhere keep nobody waiting.
 */
export class Turns {
  private readonly queue: Waiting[] = [];
  private taken = 0;

  constructor(
    private readonly most: number,
    private readonly longestMs: number,
  ) {}

  /** Does `work` when its turn has come; not at all if whoever asked has left by then. */
  take(answer: Answer, work: () => void): void {
    if (this.taken < this.most) this.begin({ answer, work });
    else this.queue.push({ answer, work });
  }

  /** How many wait for their turn. */
  get waiting(): number {
    return this.queue.length;
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

  private next(): void {
    for (let one = this.queue.shift(); one; one = this.queue.shift()) {
      if (one.answer.destroyed) continue;
      this.begin(one);
      return;
    }
  }
}
