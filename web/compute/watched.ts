/**
 * A worker that says nothing for so long while it is asked for something is taken to have ended, ms: far longer than
 * any step takes that does not say how far it is, on a slow and busy machine too.
 */
const SILENT_MS = 60_000;
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
      if (!this.heard(e.data)) return this.wait();
      clearTimeout(this.timer);
      // Only an answer shows that it can do its work: one that ends in the middle of it also says how far it is.
      this.ends = 0;
    };
    worker.onerror = (e) => {
      console.warn(`A worker ended: ${e.message || "it could not be loaded"}`);
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
