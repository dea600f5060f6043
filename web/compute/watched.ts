/** A worker that says nothing for so long while it is asked for something is taken to have ended, ms. */
const SILENT_MS = 20_000;
/** Ends in a row, without an answer in between, after which it is not started again by itself. */
const MOST_ENDS = 3;

/**
 * A worker that is started again when it ends, does not load, or falls silent in the middle of its work. A browser does
 * not tell that a worker was ended for lack of memory: silence is the only sign.
 */
export class Watched<Ask, Answer> {
  private worker: Worker | null = null;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private ends = 0;

  /**
   * @param start makes the worker
   * @param heard takes what it says. @returns whether that ends what it was asked for
   * @param lost it has ended with work unfinished; `again` tells whether a new one is there to be asked
   */
  constructor(
    private readonly start: () => Worker,
    private readonly heard: (answer: Answer) => boolean,
    private readonly lost: (again: boolean) => void,
  ) {}

  ask(ask: Ask, isAwaited = true): void {
    this.worker ??= this.hire();
    this.worker.postMessage(ask);
    if (isAwaited) this.wait();
  }

  /** Lets it begin to load. */
  ready(): void {
    this.worker ??= this.hire();
  }

  close(): void {
    clearTimeout(this.timer);
    this.worker?.terminate();
    this.worker = null;
  }

  private hire(): Worker {
    const worker = this.start();
    worker.onmessage = (e: MessageEvent<Answer>) => {
      this.ends = 0;
      if (this.heard(e.data)) clearTimeout(this.timer);
      else this.wait();
    };
    worker.onerror = (e) => {
      e.preventDefault();
      this.end();
    };
    worker.onmessageerror = () => this.end();
    return worker;
  }

  private wait(): void {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => this.end(), SILENT_MS);
  }

  private end(): void {
    this.close();
    this.lost(++this.ends < MOST_ENDS);
  }
}
