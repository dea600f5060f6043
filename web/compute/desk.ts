import { proxy } from "comlink";
import type { SheetParts } from "@oaken/core/job/sheet";
import type { Cutter } from "@oaken/core/cutters/profile";
import type { Choice } from "@oaken/core/job/choose";
import type { BoardJob } from "@oaken/core/job/document";
import type {
  BenchWork,
  BuildAsk,
  Built,
  DrawnRings,
  DrawnSurface,
  DrawnTone,
  Packed,
  WrittenBoard,
  Writing,
} from "./messages.ts";
import { Receiver } from "./parcels.ts";
import { unpacked } from "./unpacked.ts";
import { takeWorker } from "./spare.ts";
import { Ended, Watched } from "./watched.ts";

interface Trace {
  job: BoardJob;
  part: string;
}
interface Scrub {
  cut: number;
  move: number;
}

const ENDED = "The computation ended in the middle of its work";

/**
 * The page's side of the workers. Two of them: one builds, one previews while a slider moves, so that the contour never
 * waits for a carve. The latest request wins: older ones are told to stop and their answers dropped.
 */
export class Desk {
  private readonly builder = new Watched<BenchWork>(
    () => takeWorker(this.id),
    (again) => this.lostBuilder(again),
  );
  /** Begun once the first proof is there: until then it would only take time from that. */
  private readonly previewer = new Watched<BenchWork>(
    () => takeWorker(this.id),
    () => {},
  );
  private readonly receiver = new Receiver();
  private stop: SharedArrayBuffer | null = typeof SharedArrayBuffer === "undefined" ? null : new SharedArrayBuffer(4);
  /** the number of the newest build */
  private newest = 0;
  /** what is being built, to be asked for again if the worker ends */
  private wanted: BuildAsk | null = null;
  /** what was built last: the worker holds what scrubbing and writing go on from */
  private built: BuildAsk | null = null;
  private readonly previews = new Newest<Trace>(async ({ job, part }) => {
    const { rings, tone, took } = await this.previewer.call((w) => w.preview(job, part));
    this.onPreviewed(rings, tone, took);
  });
  private readonly scrubs = new Newest<Scrub>(async ({ cut, move }) => {
    const surface = await this.builder.call((w) => w.scrub(cut, move));
    if (surface) this.onSurface(surface);
  });

  onBuilt: (b: Built) => void = () => {};
  onProgress: (step: string, share: number) => void = () => {};
  onPreviewed: (r: DrawnRings | null, tone: DrawnTone | null, took: number) => void = () => {};
  onSurface: (s: DrawnSurface) => void = () => {};
  onFailed: (message: string) => void = () => {};
  /** the worker has ended and works again; said until the next proof is there */
  onRestarted: (message: string) => void = () => {};

  /** @param id of the job whose bench this serves, if it serves one */
  constructor(private readonly id?: string) {
    this.listen();
  }

  build(job: BoardJob, versions: { revision?: number; written?: number } = {}, quick = false): void {
    this.newest++;
    if (this.stop) Atomics.store(new Int32Array(this.stop), 0, this.newest);
    this.wanted = { seq: this.newest, job, quick, ...versions };
    void this.run(this.wanted);
  }

  /** Contours only, for a moving slider. */
  preview(job: BoardJob, part: string): void {
    this.previews.ask({ job, part });
  }

  /** The surface after a move. */
  scrub(cut: number, move: number): void {
    this.scrubs.ask({ cut, move });
  }

  // Writing files says nothing until it is done, and may take long: it is not watched.
  outputs(job: BoardJob, writing: Writing): Promise<WrittenBoard> {
    return this.builder.call((w) => w.outputs(job, writing), false);
  }

  thumb(side: number): Promise<Uint8Array> {
    return this.builder.call((w) => w.thumb(side), false);
  }

  /** A board's setup sheet, as PDF. */
  sheet(job: BoardJob, writing: Writing, programs: SheetParts["programs"]): Promise<Uint8Array> {
    return this.builder.call((w) => w.sheet(job, writing, programs), false);
  }

  /** Cutters tried against each other for a cut; null where there is nothing to choose. */
  choose(job: BoardJob, target: string, rack: readonly Cutter[]): Promise<Choice | null> {
    return this.builder.call((w) => w.choose(job, target, rack), false);
  }

  close(): void {
    this.builder.close();
    this.previewer.close();
  }

  private listen(): void {
    this.builder.call((w) => w.listen(this.stop), false).catch(() => {});
  }

  private async run(ask: BuildAsk): Promise<void> {
    const isWanted = () => this.wanted === ask;
    const take = (packed: Packed | null): void => {
      if (!packed) return;
      // Unpacked even where it is no longer wanted: the next one counts on what came with it.
      const built = unpacked(packed, this.receiver);
      if (!isWanted()) return;
      if (built.final) {
        this.wanted = null;
        this.built = ask;
        this.previewer.ready();
      }
      this.onBuilt(built);
    };
    const hear = (step: string, share: number): void => {
      this.builder.alive();
      // Words of progress come by a port of their own: the last of them may be behind what is built.
      if (isWanted()) this.onProgress(step, share);
    };
    try {
      // Both asked for at once: the worker need not wait for the page between them.
      const passes = [
        this.builder.call((w) => w.build(ask, proxy(hear))),
        this.builder.call((w) => w.refine(ask.seq, proxy(hear))),
      ];
      await Promise.all(passes.map((pass) => pass.then(take)));
    } catch (e) {
      // Where the worker has ended, that is seen to already. What fails behind a proof that was kept is told as well.
      if (e instanceof Ended || ask.seq !== this.newest) return;
      this.wanted = null;
      this.onFailed((e as Error).message);
    }
  }

  private lostBuilder(again: boolean): void {
    this.receiver.forget();
    this.wanted ??= this.built;
    if (!again) {
      this.wanted = null;
      this.onFailed(`${ENDED} several times. Your job is safe; change a setting, or load the page anew to try again.`);
      return;
    }
    this.listen();
    if (!this.wanted) return;
    this.onRestarted(`${ENDED} and was begun again; your job is safe.`);
    void this.run(this.wanted);
  }
}

/** Requests of which only the newest counts: one is under way, one waits, what came between is dropped. */
class Newest<T> {
  private underWay = false;
  private next: T | null = null;
  constructor(private readonly work: (asked: T) => Promise<void>) {}

  ask(asked: T): void {
    this.next = asked;
    if (!this.underWay) void this.run();
  }

  private async run(): Promise<void> {
    this.underWay = true;
    while (this.next !== null) {
      const asked = this.next;
      this.next = null;
      // What fails is asked for again with the next change.
      await this.work(asked).catch(() => {});
    }
    this.underWay = false;
  }
}
