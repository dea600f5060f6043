import { type Remote, wrap } from "comlink";

/**
 * A worker that says nothing for so long while it is asked for something is taken to have ended, ms: far longer than
 * any step takes that does not say how far it is, on a slow and busy machine too.
 */
const SILENT_MS = 60_000;
/** Ends in a row, without an answer in between, after which it is not started again by itself. */
const MOST_ENDS = 3;

/** What a call comes to whose worker ended in the middle of it. */
export class Ended extends Error {
  constructor() {
    super("The computation ended in the middle of its work. Try again.");
  }
}

/**
 * A worker and what it does. Held together: once nobody holds `work` any more, comlink tells the worker that nothing
 * will be asked of it again.
 */
export interface Helper<Work> {
  worker: Worker;
  work: Remote<Work>;
}

export const helperOf = <Work>(worker: Worker): Helper<Work> => ({ worker, work: wrap<Work>(worker) });

interface Hired<Work> extends Helper<Work> {
  /** fails when the worker has ended */
  gone: Promise<never>;
  end(): void;
}

/**
 * A worker that is started again when it ends, does not load, or falls silent in the middle of its work. A browser does
 * not tell that a worker was ended for lack of memory: silence is the only sign.
 */
export class Watched<Work> {
  private hired: Hired<Work> | null = null;
  private timer: ReturnType<typeof setTimeout> | undefined;
  /** calls that are watched and not answered yet */
  private open = 0;
  private ends = 0;

  /**
   * @param start makes the worker
   * @param lost it has ended; `again` tells whether a new one is there to be asked
   */
  constructor(
    private readonly start: () => Helper<Work>,
    private readonly lost: (again: boolean) => void,
  ) {}

  /**
   * Asks the worker for something.
   * @param isWatched whether silence until the answer means that the worker has ended
   * @throws Ended where it ends before it answers
   */
  async call<T>(ask: (work: Remote<Work>) => Promise<T>, isWatched = true): Promise<T> {
    const { work, gone } = (this.hired ??= this.hire());
    const answer = ask(work);
    if (!isWatched) return Promise.race([answer, gone]);
    this.open++;
    this.alive();
    try {
      return await Promise.race([answer, gone]);
    } finally {
      this.open--;
      if (this.hired?.work === work) this.answered();
    }
  }

  /** It has said something: how far it is. */
  alive(): void {
    clearTimeout(this.timer);
    if (this.open > 0) this.timer = setTimeout(() => this.end(), SILENT_MS);
  }

  /** Lets it begin to load. */
  ready(): void {
    this.hired ??= this.hire();
  }

  close(): void {
    clearTimeout(this.timer);
    this.hired?.worker.terminate();
    this.hired?.end();
    this.hired = null;
  }

  private hire(): Hired<Work> {
    const { worker, work } = this.start();
    worker.onerror = (e) => {
      console.warn(`A worker ended: ${e.message || "it could not be loaded"}`);
      e.preventDefault();
      this.end();
    };
    worker.onmessageerror = () => this.end();
    let end = () => {};
    const gone = new Promise<never>((_, failed) => (end = () => failed(new Ended())));
    // Whoever has asked for nothing need not hear of it.
    gone.catch(() => {});
    return { worker, work, gone, end };
  }

  /** Only an answer shows that it can do its work: one that ends in the middle of it also says how far it is. */
  private answered(): void {
    this.ends = 0;
    this.alive();
  }

  private end(): void {
    this.close();
    this.lost(++this.ends < MOST_ENDS);
  }
}
