import type { Ask } from "./messages.ts";

/** Another computing worker. */
const start = (): Worker => new Worker(new URL("./worker.ts", import.meta.url), { type: "module" });

interface Spare {
  worker: Worker;
  /** set once somebody waits for the worker: it leaves off warming up */
  halt: Int32Array;
}
let spare: Spare | null = null;

/** After the page has come to rest for so long nobody is waiting for anything, ms. */
const IDLE_MS = 250;

/**
 * Loads a worker and lets it warm up while the page is idle: the next bench begins with it. Without shared memory it
 * could not be told to leave off, so there none is kept.
 * @returns gives up what has not begun
 */
export function prepareSpare(): () => void {
  if (spare || typeof SharedArrayBuffer === "undefined") return () => {};
  const timer = setTimeout(() => {
    if (spare) return;
    const halt = new SharedArrayBuffer(4);
    const worker = start();
    // One that does not load is none: whoever needs a worker starts another, and hears of it if that fails too.
    worker.onerror = () => (spare = null);
    worker.postMessage({ type: "warm", halt } satisfies Ask);
    spare = { worker, halt: new Int32Array(halt) };
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
