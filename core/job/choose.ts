import { copyOf } from "../copy.ts";
import { type Cutter, describeCutters } from "../cutters/profile.ts";
import type { CutKind } from "../cuts/kind.ts";
import { chosenHelp } from "../cuts/register.ts";
import type { Kept } from "../kept.ts";
import { noProgress, Problem } from "../problem.ts";
import { isOwned } from "../shop/shop.ts";
import { formatTime } from "../units.ts";
import { graphOf } from "./build.ts";
import type { BoardJob, JobCut } from "./document.ts";
import { setHelpers } from "./edit.ts";
import type { Made } from "./graph.ts";
import { estimateCut, planCuts, type Planning } from "./plan.ts";
import { withChanges } from "./prove.ts";
import type { Files } from "./tools.ts";

/** A set of cutters that could come before a cut, and what it comes to. */
export interface Tried {
  /** in the order in which they would come; none where the cut does it all */
  cutters: Cutter[];
  /** of the helping cuts and the one that they help, with tool changes, s */
  seconds: number;
  /** planned, so that its time is what the programs take; else estimated */
  isPlanned: boolean;
}

/** Cutters that were tried against each other for one cut. */
export interface Choice {
  /** the cut that they help, and the kind of help */
  target: string;
  kind: string;
  /** the one that was taken first, then the other planned ones and the estimated ones, fastest first */
  tried: Tried[];
  /** why, in a line */
  reason: string;
}

/** Cutters of a rack that are tried at most: more, and they are taken evenly by their size. */
const MOST_CUTTERS = 10;
/**
 * The set that is estimated best is planned, the next one too where its estimate comes within this of that, and further
 * ones while they are estimated faster than any was planned; so many at most.
 */
const NEAR = 1.1;
const MOST_PLANNED = 5;
/** A set with fewer cutters is taken where it takes no longer than this share: each change is one more to get wrong. */
const WORTH_A_CHANGE = 1.03;

/**
 * Tries the cutters of a rack before a cut: none, each, and every two of them, the larger first. Times are estimated
 * from areas, lengths and clearance; the nearest to the best are planned.
 * @returns null where its kind has no help of which that can be told, or there is nothing to cut
 */
export function chooseHelpers(
  job: BoardJob,
  target: string,
  rack: readonly Cutter[],
  planning: Planning,
): { job: BoardJob; choice: Choice } | null {
  const cut = job.cuts.find((c) => c.id === target)!;
  const help = chosenHelp(cut.kind);
  if (!help || estimateCut(job, target, planning) === null) return null;
  const sets = new Sets(job, cut, help, planning);
  const cutters = candidates(rack, help);
  const tried = [sets.estimated([]), ...cutters.map((c) => sets.estimated([c]))];
  for (const first of cutters)
    for (const next of cutters)
      if (next.diameter < first.diameter) {
        const best = Math.min(...tried.map((t) => t.seconds));
        // What the second cutter takes comes on top: sets that are slower without it are slower with it.
        if (sets.atLeast(first, next) < best) tried.push(sets.estimated([first, next]));
      }
  const possible = tried.filter((t) => Number.isFinite(t.seconds)).sort((a, b) => a.seconds - b.seconds);
  if (possible.length === 0) return null;
  const planned = new Map<Tried, Tried>();
  for (const t of possible) {
    const fastest = Math.min(...[...planned.values()].map((p) => p.seconds));
    const isHopeless = t.seconds > fastest * (planned.size < 2 ? NEAR : 1);
    if (Number.isFinite(fastest) && (isHopeless || planned.size >= MOST_PLANNED)) break;
    planned.set(t, sets.planned(t.cutters));
  }
  // What was only estimated does not come before what was planned.
  const all = possible
    .map((t) => planned.get(t) ?? t)
    .filter((t) => Number.isFinite(t.seconds))
    .sort((a, b) => Number(b.isPlanned) - Number(a.isPlanned) || a.seconds - b.seconds);
  const fewest = all.filter((t) => t.isPlanned && t.seconds <= WORTH_A_CHANGE * all[0].seconds);
  const best = fewest.reduce((a, b) => (b.cutters.length < a.cutters.length ? b : a));
  all.splice(all.indexOf(best), 1);
  all.unshift(best);
  const choice = { target, kind: help.kind, tried: all, reason: reasonOf(all) };
  return { job: sets.withCutters(best.cutters), choice };
}

/** A job with the cutters that suit it, for every cut that has help of which that can be told. */
export interface ChosenJob {
  job: BoardJob;
  choices: Choice[];
}

/**
 * Chooses for every cut of a job; one whose outline cannot be made stays as it is.
 * @param only the cut that it is about, where it is not about all of them
 */
export function chooseAll(job: BoardJob, rack: readonly Cutter[], files: Files, kept: Kept, only?: string): ChosenJob {
  const isAbout = (id: string) => only === undefined || id === only;
  const targets = job.cuts.filter((c) => c.on && !c.target && isAbout(c.id) && chosenHelp(c.kind));
  const choices: Choice[] = [];
  if (targets.length === 0) return { job, choices };
  const graph = graphOf(job, files, kept);
  const makings = new Map<string, Made>();
  for (const { id } of job.makings)
    try {
      makings.set(id, graph.made(id));
    } catch (e) {
      if (!(e instanceof Problem)) throw e;
    }
  const planning: Planning = { makings, kept, grain: null, step: () => noProgress, now: () => 0 };
  for (const { id } of targets) {
    const chosen = chooseHelpers(job, id, rack, planning);
    if (!chosen) continue;
    job = chosen.job;
    choices.push(chosen.choice);
  }
  return { job, choices };
}

/** Sets of cutters before one cut of a job. */
class Sets {
  constructor(
    private readonly job: BoardJob,
    private readonly cut: JobCut,
    private readonly help: CutKind,
    private readonly planning: Planning,
  ) {}

  withCutters(cutters: readonly Cutter[]): BoardJob {
    const job = copyOf(this.job);
    setHelpers(
      job,
      job.cuts.find((c) => c.id === this.cut.id)!,
      this.help.kind,
      cutters,
    );
    return job;
  }

  estimated(cutters: Cutter[]): Tried {
    const job = this.withCutters(cutters);
    const parts = this.ours(job).map((c) => ({
      cutter: c.cutter,
      seconds: estimateCut(job, c.id, this.planning) ?? 0,
    }));
    return { cutters, seconds: this.total(parts), isPlanned: false };
  }

  planned(cutters: Cutter[]): Tried {
    const job = this.withCutters(cutters);
    const ids = new Set(this.ours(job).map((c) => c.id));
    const cuts = planCuts(job, this.planning).filter((c) => ids.has(c.id));
    const isStopped = cuts.some((c) => c.id !== this.cut.id && c.notes.some((n) => n.severity === "stop"));
    const parts = cuts.map((c) => ({ cutter: c.cut.cutter, seconds: c.seconds }));
    return { cutters, seconds: isStopped ? Infinity : this.total(parts), isPlanned: true };
  }

  /** What two cutters come to without what the second one itself takes, s. */
  atLeast(first: Cutter, next: Cutter): number {
    const seconds = (cutters: Cutter[], id: (job: BoardJob) => string) => {
      const job = this.withCutters(cutters);
      return estimateCut(job, id(job), this.planning) ?? 0;
    };
    return this.total([
      { cutter: first, seconds: seconds([first], (job) => this.ours(job)[0].id) },
      { cutter: next, seconds: LEAST_SECOND },
      { cutter: this.cut.cutter, seconds: seconds([next], () => this.cut.id) },
    ]);
  }

  /** The cut with its helpers of the kind at hand, in order. */
  private ours(job: BoardJob): JobCut[] {
    return job.cuts.filter(
      (c) => c.id === this.cut.id || (c.target === this.cut.id && c.kind === this.help.kind && c.on),
    );
  }

  private total(parts: readonly { cutter: Cutter; seconds: number }[]): number {
    return withChanges(
      this.job.machine,
      parts.filter((p) => p.seconds > 0),
    );
  }
}

/** A second cutter that has anything to do takes at least as long as this, s. */
const LEAST_SECOND = 1;

/** The cutters that a kind can use, largest first, no two alike. */
function candidates(rack: readonly Cutter[], help: CutKind): Cutter[] {
  const bySize = new Map<number, Cutter>();
  for (const c of rack.filter(isOwned))
    if (
      help.cutters.includes(c.kind) &&
      (!bySize.has(c.diameter) || (c.centreCutting && !bySize.get(c.diameter)!.centreCutting))
    )
      bySize.set(c.diameter, c);
  const all = [...bySize.values()].sort((a, b) => b.diameter - a.diameter);
  if (all.length <= MOST_CUTTERS) return all;
  return Array.from({ length: MOST_CUTTERS }, (_, k) => all[Math.round((k * (all.length - 1)) / (MOST_CUTTERS - 1))]);
}

/** The set that was taken against the fastest of each other number of cutters. */
function reasonOf([taken, ...others]: readonly Tried[]): string {
  const rivals = [0, 1, 2]
    .map((n) => others.find((t) => t.cutters.length === n))
    .filter((t) => t !== undefined)
    .sort((a, b) => a.seconds - b.seconds);
  const words = rivals.map(
    (t) => `${t.cutters.length === 0 ? "without any" : describeCutters(t.cutters)} ${formatTime(t.seconds)}`,
  );
  const first = taken.cutters.length === 0 ? "no clearing cutter" : describeCutters(taken.cutters);
  return `${first}: ${formatTime(taken.seconds)}${words.length > 0 ? `; ${words.join("; ")}` : ""}`;
}
