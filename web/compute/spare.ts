import { HALT } from "./halt.ts";
import type { BenchWork } from "./messages.ts";
import { type Helper, helperOf } from "./watched.ts";

/** Another computing worker. */
const start = (): Helper<BenchWork> =>
  helperOf(new Worker(new URL("./worker.ts", import.meta.url), { type: "module" }));

interface Spare {
  helper: Helper<BenchWork>;
  /** the job that it builds ahead */
  job: string;
  /** how it is told to leave that off, see HALT */
  halt: Int32Array;
}
let spare: Spare | null = null;

/** A pointer that has rested on a job for so long does not only pass over it, ms. */
export const REST_MS = 150;

/**
 * Loads a worker while the page is idle and lets it build the job that is likely to be opened next: the next bench
 * begins with it. Without shared memory it could not be told to leave off, so there none is kept.
 * @param after so long, ms
 * @returns gives up what has not begun
 */
export function prepareSpare(job: string, after: number): () => void {
  if (spare?.job === job || typeof SharedArrayBuffer === "undefined") return () => {};
  const timer = setTimeout(() => {
    if (spare) Atomics.store(spare.halt, 0, HALT.atOnce);
    const helper = spare?.helper ?? start();
    // One that does not load is none: whoever needs a worker starts another, and hears of it if that fails too.
    helper.worker.onerror = () => (spare = null);
    const halt = new SharedArrayBuffer(4);
    void helper.work.ahead(job, halt);
    spare = { helper, job, halt: new Int32Array(halt) };
  }, after);
  return () => clearTimeout(timer);
}

/** A worker, for a job's bench or for many jobs: the spare one, where there is one. */
export function takeWorker(job?: string): Helper<BenchWork> {
  const kept = spare;
  spare = null;
  if (!kept) return start();
  Atomics.store(kept.halt, 0, kept.job === job ? HALT.afterPass : HALT.atOnce);
  return kept.helper;
}
