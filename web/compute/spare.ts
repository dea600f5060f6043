import type { Ask } from "./messages.ts";

/** Another computing worker. */
const start = (): Worker => new Worker(new URL("./worker.ts", import.meta.url), { type: "module" });

interface Spare {
  worker: Worker;
  /** the job that it builds ahead */
  job: string;
  /** set once it is to leave that off */
  halt: Int32Array;
}
let spare: Spare | null = null;

/** After the page, or the pointer on a job, has come to rest for so long, nobody is waiting for anything else, ms. */
const IDLE_MS = 150;

/**
 * Loads a worker while the page is idle and lets it build the job that is likely to be opened next: the next bench
 * begins with it. Without shared memory it could not be told to leave off, so there none is kept.
 * @returns gives up what has not begun
 */
export function prepareSpare(job: string): () => void {
  if (spare?.job === job || typeof SharedArrayBuffer === "undefined") return () => {};
  const timer = setTimeout(() => {
    if (spare) Atomics.store(spare.halt, 0, 1);
    const worker = spare?.worker ?? start();
    // One that does not load is none: whoever needs a worker starts another, and hears of it if that fails too.
    worker.onerror = () => (spare = null);
    const halt = new SharedArrayBuffer(4);
    worker.postMessage({ type: "ahead", job, halt } satisfies Ask);
    spare = { worker, job, halt: new Int32Array(halt) };
  }, IDLE_MS);
  return () => clearTimeout(timer);
}

/** A worker: the spare one, where there is one. */
export function takeWorker(): Worker {
  const kept = spare;
  spare = null;
  if (!kept) return start();
  Atomics.store(kept.halt, 0, 1);
  return kept.worker;
}
