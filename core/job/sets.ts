import { copyOf } from "../copy.ts";
import { type Cutter, sameCutter } from "../cutters/profile.ts";
import type { Left } from "../cuts/kind.ts";
import { type Choosable, cutKind } from "../cuts/register.ts";
import type { BoardJob, JobCut } from "./document.ts";
import { takeCutters } from "./edit.ts";
import { estimateCut, leastOfCut, leftByCut, planCuts, type Planning } from "./plan.ts";
import { withChanges } from "./prove.ts";

/** A set of cutters for a cut, and what it comes to. */
export interface Tried {
  /** in the order in which they would come; none where the cut does it all with a cutter that is not chosen */
  cutters: Cutter[];
  /** of the cut and those that help it, with tool changes, s */
  seconds: number;
  /** what they leave of what they were to take */
  left: Left;
  /**
   * planned, so that its time is what the programs take, but for how long finishing a surface takes; for a first look
   * as coarsely as that; else estimated
   */
  isPlanned: boolean;
}

/** A second cutter that has anything to do takes at least as long as this, s. */
const LEAST_SECOND = 1;

/** A cut of a set, and how long it takes, s. */
interface Part {
  id: string;
  cutter: Cutter;
  seconds: number;
}

/** Sets of cutters for one cut of a job. */
export class Sets {
  /** the kind of cutter that is tried: the usual one */
  readonly tries: Cutter["kind"];
  private readonly kind: string | null;
  /** what was estimated of each set: single cutters are asked for again with every second one */
  private readonly told = new Map<string, Part[]>();

  constructor(
    private readonly job: BoardJob,
    private readonly cut: JobCut,
    private readonly way: Choosable,
    private readonly planning: Planning,
  ) {
    this.kind = way.help?.kind ?? null;
    this.tries = (way.own ? cutKind(cut.kind) : way.help!).cutters[0];
  }

  withCutters(cutters: readonly Cutter[]): BoardJob {
    const job = copyOf(this.job);
    const target = job.cuts.find((c) => c.id === this.cut.id)!;
    takeCutters(job, target, { own: this.way.own, kind: this.kind }, cutters);
    return job;
  }

  /** Infinity seconds where one of the cutters that help has nothing to do: the set is another one then. */
  estimated(cutters: Cutter[]): Tried {
    const parts = this.partsOf(cutters);
    const isIdle = !this.way.own && parts.some((p) => p.id !== this.cut.id && p.seconds === 0);
    const seconds = isIdle ? Infinity : this.total(parts);
    const left = Number.isFinite(seconds) ? leftByCut(this.withCutters(cutters), this.cut.id, this.planning) : null;
    return { cutters, seconds, left: left ?? { area: 0, missing: 0, spare: 0 }, isPlanned: false };
  }

  /** With its helping cuts planned, and the cut itself, but for a surface: how long that takes no helper changes. */
  planned({ cutters, left }: Tried): Tried {
    const job = this.withCutters(cutters);
    const isGrainy = cutKind(this.cut.kind).isGrainy;
    const ids = new Set(this.ours(job).map((c) => c.id));
    if (isGrainy) ids.delete(this.cut.id);
    const cuts = planCuts(job, this.planning, (c) => ids.has(c.id));
    // What stops the cut itself, whatever helps it, stops every set alike.
    const isOurs = (id: string) => this.way.own || id !== this.cut.id;
    const isStopped = cuts.some((c) => isOurs(c.id) && c.notes.some((n) => n.severity === "stop"));
    const parts = cuts.map((c) => ({ cutter: c.cut.cutter, seconds: c.seconds }));
    if (isGrainy) parts.push({ cutter: this.cut.cutter, seconds: estimateCut(job, this.cut.id, this.planning) ?? 0 });
    return { cutters, seconds: isStopped ? Infinity : this.total(parts), left, isPlanned: true };
  }

  /** What two cutters come to with no more of the second one than it has to do at least, and how long that is; s. */
  atLeast(first: Cutter, next: Cutter): { seconds: number; second: number } {
    const job = this.withCutters([first, next]);
    const { id } = this.ours(job).find((c) => c.id !== this.cut.id && sameCutter(c.cutter, next))!;
    const second = Math.max(LEAST_SECOND, leastOfCut(job, id, this.planning) ?? 0);
    const parts = [
      { cutter: first, seconds: this.partsOf([first]).find((p) => sameCutter(p.cutter, first))!.seconds },
      { cutter: next, seconds: second },
    ];
    if (!this.way.own) parts.push(this.partsOf([next]).find((p) => p.id === this.cut.id)!);
    return { seconds: this.total(parts), second };
  }

  /** The cut and what helps it, in order, with what each is estimated to take. */
  private partsOf(cutters: readonly Cutter[]): Part[] {
    const key = JSON.stringify(cutters);
    let parts = this.told.get(key);
    if (!parts) {
      const job = this.withCutters(cutters);
      const seconds = (id: string) => estimateCut(job, id, this.planning) ?? 0;
      parts = this.ours(job).map(({ id, cutter }) => ({ id, cutter, seconds: seconds(id) }));
      this.told.set(key, parts);
    }
    return parts;
  }

  /** The cut with its helpers of the kind at hand, in order. */
  private ours(job: BoardJob): JobCut[] {
    return job.cuts.filter((c) => c.id === this.cut.id || (c.target === this.cut.id && c.kind === this.kind && c.on));
  }

  private total(parts: readonly { cutter: Cutter; seconds: number }[]): number {
    return withChanges(
      this.job.machine,
      parts.filter((p) => p.seconds > 0),
    );
  }
}
