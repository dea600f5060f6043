import type { JobDocument } from "@oaken/core/job/document";
import type { Answer, Ask, Built, DrawnRings, DrawnSurface, DrawnTone, WrittenFile } from "./messages.ts";

type Latest<T> = { seq: number; value: T } | null;

/**
 * The page's side of the workers. Two of them: one builds, one traces while a slider moves, so that the contour never
 * waits for a carve. The latest request wins: older ones are told to stop and their answers dropped.
 */
export class Desk {
  private builder = new Worker(new URL("./worker.ts", import.meta.url), { type: "module" });
  private second: Worker | null = null;
  private stop: SharedArrayBuffer | null = typeof SharedArrayBuffer === "undefined" ? null : new SharedArrayBuffer(4);
  private seq = 0;
  private building = 0;
  private tracing = false;
  private nextTrace: { job: JobDocument; part: string } | null = null;
  private scrubbing = false;
  private nextScrub: Latest<{ cut: number; move: number }> = null;
  private waiting = new Map<number, { done: (v: never) => void; failed: (e: Error) => void }>();

  onBuilt: (b: Built) => void = () => {};
  onProgress: (step: string, share: number) => void = () => {};
  onTraced: (r: DrawnRings, tone: DrawnTone | null, took: number) => void = () => {};
  onSurface: (s: DrawnSurface) => void = () => {};
  onFailed: (message: string) => void = () => {};

  constructor() {
    this.builder.onmessage = (e: MessageEvent<Answer>) => this.fromBuilder(e.data);
    this.builder.postMessage({ type: "listen", stop: this.stop } satisfies Ask);
  }

  build(job: JobDocument, versions: { revision?: number; written?: number } = {}, quick = false): void {
    this.building = ++this.seq;
    if (this.stop) Atomics.store(new Int32Array(this.stop), 0, this.building);
    this.builder.postMessage({ type: "build", seq: this.building, job, quick, ...versions } satisfies Ask);
  }

  /** The second worker, begun once the first proof is there: until then it would only take time from that. */
  private tracer(): Worker {
    if (!this.second) {
      this.second = new Worker(new URL("./worker.ts", import.meta.url), { type: "module" });
      this.second.onmessage = (e: MessageEvent<Answer>) => this.fromTracer(e.data);
    }
    return this.second;
  }

  /** Contours only, for a moving slider: while one request runs, only the newest of the others is kept. */
  trace(job: JobDocument, part: string): void {
    if (this.tracing) {
      this.nextTrace = { job, part };
      return;
    }
    this.tracing = true;
    this.tracer().postMessage({ type: "trace", seq: ++this.seq, job, part } satisfies Ask);
  }

  /** The surface after a move; as with tracing, the newest wins. */
  scrub(cut: number, move: number): void {
    if (this.scrubbing) {
      this.nextScrub = { seq: 0, value: { cut, move } };
      return;
    }
    this.scrubbing = true;
    this.builder.postMessage({ type: "scrub", seq: this.building, cut, move } satisfies Ask);
  }

  outputs(job: JobDocument, from: string): Promise<WrittenFile[]> {
    return this.call((seq) => ({ type: "outputs", seq, job, from }));
  }

  thumb(side: number): Promise<Uint8Array> {
    return this.call((seq) => ({ type: "thumb", seq, side }));
  }

  private call<T>(ask: (seq: number) => Ask): Promise<T> {
    // Negative numbers, so that a newer build does not stop these.
    const seq = -++this.seq;
    return new Promise((done, failed) => {
      this.waiting.set(seq, { done: done as (v: never) => void, failed });
      this.builder.postMessage(ask(seq));
    });
  }

  close(): void {
    this.builder.terminate();
    this.second?.terminate();
  }

  private fromBuilder(a: Answer): void {
    const call = this.waiting.get(a.seq);
    if (call) {
      this.waiting.delete(a.seq);
      if (a.type === "failed") call.failed(new Error(a.message));
      else call.done((a.type === "outputs" ? a.files : a.type === "thumb" ? a.png : undefined) as never);
      return;
    }
    if (a.type === "surface") {
      this.scrubbing = false;
      this.onSurface(a.surface);
      const next = this.nextScrub;
      this.nextScrub = null;
      if (next) this.scrub(next.value.cut, next.value.move);
      return;
    }
    if (a.seq !== this.building) return;
    if (a.type === "built") {
      if (a.built.final) this.tracer();
      this.onBuilt(a.built);
    }
    else if (a.type === "progress") this.onProgress(a.step, a.share);
    else if (a.type === "failed") this.onFailed(a.message);
  }

  private fromTracer(a: Answer): void {
    this.tracing = false;
    if (a.type === "traced") this.onTraced(a.rings, a.tone, a.took);
    const next = this.nextTrace;
    this.nextTrace = null;
    if (next) this.trace(next.job, next.part);
  }
}
