import type { SheetParts } from "@oaken/core/job/sheet";
import type { Cutter } from "@oaken/core/cutters/profile";
import type { Choice } from "@oaken/core/job/choose";
import type { BoardJob } from "@oaken/core/job/document";
import type { Answer, Ask, Built, DrawnRings, DrawnSurface, DrawnTone, WrittenBoard, Writing } from "./messages.ts";
import { Receiver } from "./parcels.ts";
import { unpacked } from "./unpacked.ts";
import { takeWorker } from "./spare.ts";
import { Watched } from "./watched.ts";

/** A request for which only the newest counts: one is under way, one waits, what came between is dropped. */
interface Newest<T> {
  underWay: boolean;
  next: T | null;
}
interface Trace {
  job: BoardJob;
  part: string;
}
interface Scrub {
  cut: number;
  move: number;
}

const ENDED = "The computation ended in the middle of its work";

/** What an answer to a call holds. */
function resultOf(a: Answer): WrittenBoard | Uint8Array | Choice | null | undefined {
  if (a.type === "outputs") return a.written;
  if (a.type === "sheet") return a.pdf;
  if (a.type === "thumb") return a.png;
  return a.type === "chosen" ? a.choice : undefined;
}

/**
 * The page's side of the workers. Two of them: one builds, one previews while a slider moves, so that the contour never
 * waits for a carve. The latest request wins: older ones are told to stop and their answers dropped.
 */
export class Desk {
  private readonly builder = new Watched<Ask, Answer>(
    () => takeWorker(this.id),
    (a) => this.fromBuilder(a),
    (again) => this.lostBuilder(again),
  );
  /** Begun once the first proof is there: until then it would only take time from that. */
  private readonly previewer = new Watched<Ask, Answer>(
    () => takeWorker(this.id),
    (a) => this.fromTracer(a),
    () => this.lostTracer(),
  );
  private readonly receiver = new Receiver();
  private stop: SharedArrayBuffer | null = typeof SharedArrayBuffer === "undefined" ? null : new SharedArrayBuffer(4);
  private seq = 0;
  private building = 0;
  /** what is being built, to be asked for again if the worker ends */
  private wanted: (Ask & { type: "build" }) | null = null;
  private readonly previews: Newest<Trace> = { underWay: false, next: null };
  private readonly scrubs: Newest<Scrub> = { underWay: false, next: null };
  private waiting = new Map<number, { done: (v: never) => void; failed: (e: Error) => void }>();

  onBuilt: (b: Built) => void = () => {};
  onProgress: (step: string, share: number) => void = () => {};
  onPreviewed: (r: DrawnRings | null, tone: DrawnTone | null, took: number) => void = () => {};
  onSurface: (s: DrawnSurface) => void = () => {};
  onFailed: (message: string) => void = () => {};
  /** the worker has ended and works again; said until the next proof is there */
  onRestarted: (message: string) => void = () => {};

  /** @param id of the job whose bench this serves, if it serves one */
  constructor(private readonly id?: string) {
    this.builder.ask({ type: "listen", stop: this.stop }, false);
  }

  build(job: BoardJob, versions: { revision?: number; written?: number } = {}, quick = false): void {
    this.building = ++this.seq;
    if (this.stop) Atomics.store(new Int32Array(this.stop), 0, this.building);
    this.wanted = { type: "build", seq: this.building, job, quick, ...versions };
    this.builder.ask(this.wanted);
  }

  /** Contours only, for a moving slider. */
  preview(job: BoardJob, part: string): void {
    if (this.previews.underWay) {
      this.previews.next = { job, part };
      return;
    }
    this.previews.underWay = true;
    this.previewer.ask({ type: "preview", seq: ++this.seq, job, part });
  }

  /** The surface after a move. */
  scrub(cut: number, move: number): void {
    if (this.scrubs.underWay) {
      this.scrubs.next = { cut, move };
      return;
    }
    this.scrubs.underWay = true;
    this.builder.ask({ type: "scrub", seq: this.building, cut, move });
  }

  outputs(job: BoardJob, writing: Writing): Promise<WrittenBoard> {
    return this.call((seq) => ({ type: "outputs", seq, job, writing }));
  }

  thumb(side: number): Promise<Uint8Array> {
    return this.call((seq) => ({ type: "thumb", seq, side }));
  }

  /** A board's setup sheet, as PDF. */
  sheet(job: BoardJob, writing: Writing, programs: SheetParts["programs"]): Promise<Uint8Array> {
    return this.call((seq) => ({ type: "sheet", seq, job, writing, programs }));
  }
  /** Cutters tried against each other for a cut; null where there is nothing to choose. */
  choose(job: BoardJob, target: string, rack: readonly Cutter[]): Promise<Choice | null> {
    return this.call((seq) => ({ type: "choose", seq, job, target, rack }));
  }

  private call<T>(ask: (seq: number) => Ask): Promise<T> {
    // Negative numbers, so that a newer build does not stop these.
    const seq = -++this.seq;
    return new Promise((done, failed) => {
      this.waiting.set(seq, { done: done as (v: never) => void, failed });
      // Writing files says nothing until it is done, and may take long: it is not watched.
      this.builder.ask(ask(seq), false);
    });
  }

  close(): void {
    this.builder.close();
    this.previewer.close();
  }

  /** @returns whether nothing more is awaited of the builder */
  private fromBuilder(a: Answer): boolean {
    const call = this.waiting.get(a.seq);
    if (call) {
      this.waiting.delete(a.seq);
      if (a.type === "failed") call.failed(new Error(a.message));
      else call.done(resultOf(a) as never);
      return this.wanted === null;
    }
    if (a.type === "surface") {
      this.scrubs.underWay = false;
      this.onSurface(a.surface);
      const { next } = this.scrubs;
      this.scrubs.next = null;
      if (next) this.scrub(next.cut, next.move);
      return this.wanted === null && !next;
    }
    // Unpacked even where it is no longer wanted: the next one counts on what came with it.
    const built = a.type === "built" ? unpacked(a.built, this.receiver) : null;
    if (a.seq !== this.building) return false;
    if (built) {
      if (built.final) {
        this.wanted = null;
        this.previewer.ready();
      }
      this.onBuilt(built);
    } else if (a.type === "progress") this.onProgress(a.step, a.share);
    else if (a.type === "failed") {
      this.wanted = null;
      this.onFailed(a.message);
    }
    return this.wanted === null;
  }

  private lostBuilder(again: boolean): void {
    for (const { failed } of this.waiting.values()) failed(new Error(`${ENDED}. Try again.`));
    this.waiting.clear();
    this.receiver.forget();
    this.scrubs.underWay = false;
    this.scrubs.next = null;
    const { wanted } = this;
    if (!again) {
      this.wanted = null;
      this.onFailed(`${ENDED} several times. Your job is safe; change a setting, or load the page anew to try again.`);
      return;
    }
    this.builder.ask({ type: "listen", stop: this.stop }, false);
    if (!wanted) return;
    this.onRestarted(`${ENDED} and was begun again; your job is safe.`);
    this.builder.ask(wanted);
  }

  private fromTracer(a: Answer): boolean {
    this.previews.underWay = false;
    if (a.type === "previewed") this.onPreviewed(a.rings, a.tone, a.took);
    const { next } = this.previews;
    this.previews.next = null;
    if (next) this.preview(next.job, next.part);
    return !next;
  }

  private lostTracer(): void {
    this.previews.underWay = false;
    this.previews.next = null;
  }
}
