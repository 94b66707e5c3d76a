/** On a terminal, what is worked on, for what takes more than a second. It stands on standard error, and goes when done. */

const SHOWN_AFTER_MS = 1000;
const EVERY_MS = 200;
const CLEAR = '\r\u001b[K';

export class Progress {
  private readonly began = Date.now();
  private readonly timer: NodeJS.Timeout | null;
  private what = '';
  private shown = 0;

  constructor(
    private readonly stream: NodeJS.WriteStream = process.stderr,
    private readonly shownAfter = SHOWN_AFTER_MS,
  ) {
    this.timer = stream.isTTY ? setInterval(() => this.show(), EVERY_MS) : null;
    this.timer?.unref();
  }

  /** Says what is begun now. */
  at(what: string): void {
    this.what = what;
    this.show();
  }

  private show(): void {
    const now = Date.now();
    if (!this.timer || now - this.began < this.shownAfter || now - this.shown < EVERY_MS) return;
    this.shown = now;
    const seconds = Math.round((now - this.began) / 1000);
    this.stream.write(`${CLEAR}${this.what ? `${this.what}, ` : 'working, '}${seconds} s`);
  }

  end(): void {
    if (this.timer) clearInterval(this.timer);
    if (this.shown) this.stream.write(CLEAR);
  }
}
