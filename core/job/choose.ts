import { type Cutter, describeCutters } from "../cutters/profile.ts";
import { type Choosable, choosable, cutKind } from "../cuts/register.ts";
import type { Kept } from "../kept.ts";
import { noProgress, Problem } from "../problem.ts";
import { isOwned } from "../shop/shop.ts";
import { formatTime } from "../units.ts";
import { graphOf } from "./build.ts";
import type { BoardJob } from "./document.ts";
import type { Made } from "./graph.ts";
import { isMore, leastOf, leavesMore } from "./leaves.ts";
import { estimateCut, type Planning } from "./plan.ts";
import { Sets, type Tried } from "./sets.ts";
import type { Files } from "./tools.ts";

/** Cutters that were tried against each other for one cut. */
export interface Choice {
  /** the cut that they are for */
  target: string;
  /** the first of them is the cut's own */
  own: boolean;
  /** the kind of cut that helps it with the others; null where none does */
  kind: string | null;
  /** the one that was taken first, then those that leave no more, planned ones first, then the others; fastest first */
  tried: Tried[];
  /** why, in a line */
  reason: string;
}

/** Parts of a choice that somebody made already. */
export interface Fixed {
  /** the cuts' own cutters */
  own?: boolean;
  /** the cutters of cuts that help; where not said, none are added after an own cutter that somebody chose */
  helpers?: boolean;
}

/** Cutters of a rack that are tried at most: more, and they are taken evenly by their size. */
const MOST_CUTTERS = 10;
/**
 * The set that is estimated best is planned, and further ones, so many at most, whose estimates are within this of its
 * own: of a cut's own cutters those err each in their own way, of what comes before one and the same cut alike.
 */
const NEAR = { helpers: 1, own: 1.03 };
const MOST_PLANNED = 5;
/** A planned time within this of its estimate shows that the estimates can be compared. */
const WELL_TOLD = 1.15;
/** A set with fewer cutters is taken where it takes no longer than this share: each change is one more to get wrong. */
const WORTH_A_CHANGE = 1.03;
/** Estimates within this of each other tell nothing: what has fewer cutters is planned, and not what has more. */
const ALIKE = 1.01;

/**
 * Tries the cutters of a rack for a cut: for those that come before it none, each, and every two of them, the larger
 * first; for its own and those that come after it each and every two. Of the sets that leave no more than can be had
 * the fastest is taken. Times are estimated from areas, lengths and clearance, those of a surface from coarse plans;
 * the nearest to the best are planned.
 * @returns null where that cannot be told of its kind, or there is nothing to cut
 */
export function chooseCutters(
  job: BoardJob,
  target: string,
  rack: readonly Cutter[],
  planning: Planning,
  fixed: Fixed = {},
): { job: BoardJob; choice: Choice } | null {
  const cut = job.cuts.find((c) => c.id === target)!;
  const way = choosable(cut.kind);
  if (!way || estimateCut(job, target, planning) === null) return null;
  const own = way.own && fixed.own === true;
  const helpers = fixed.helpers ?? own;
  if (helpers && (own || !way.own)) return null;
  const sets = new Sets(job, cut, way, planning);
  const possible = estimatedSets(sets, rack, { ...way, fixed: { own, helpers }, mine: cut.cutter }).filter((t) =>
    Number.isFinite(t.seconds),
  );
  if (possible.length === 0) return null;
  const isEnough = leavesEnough(possible);
  const [enough, less] = [possible.filter(isEnough), possible.filter((t) => !isEnough(t))].map((l) =>
    l.sort((a, b) => a.seconds - b.seconds),
  );
  // Estimates for a surface are coarse plans, which err each in their own way: a shorter one tells nothing.
  const near = cutKind(cut.kind).isGrainy ? null : NEAR[way.own ? "own" : "helpers"];
  const all = planned(sets, enough, near);
  const fewest = all.filter((t) => t.isPlanned === all[0].isPlanned && t.seconds <= WORTH_A_CHANGE * all[0].seconds);
  const best = fewest.reduce((a, b) => (b.cutters.length < a.cutters.length ? b : a));
  all.splice(all.indexOf(best), 1);
  const tried = [best, ...all, ...less];
  const choice = { target, own: way.own, kind: way.help?.kind ?? null, tried, reason: reasonOf(best, all, less) };
  return { job: sets.withCutters(best.cutters), choice };
}

/** A job with the cutters that suit it, for every cut of which that can be told. */
export interface ChosenJob {
  job: BoardJob;
  choices: Choice[];
}

/**
 * Chooses for every cut of a job; one whose outline cannot be made stays as it is.
 * @param how `only`: the cut that it is about, where it is not about all of them; `grain`: for a first look, surfaces
 * are planned at samples so coarse, mm, as the look itself plans them
 */
export function chooseAll(
  job: BoardJob,
  rack: readonly Cutter[],
  files: Files,
  kept: Kept,
  { only, grain = null, fixed }: { only?: string; grain?: number | null; fixed?: Fixed } = {},
): ChosenJob {
  const isAbout = (id: string) => only === undefined || id === only;
  const targets = job.cuts.filter((c) => c.on && !c.target && isAbout(c.id) && choosable(c.kind));
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
  const planning: Planning = { makings, kept, grain, step: () => noProgress, now: () => 0 };
  for (const { id } of targets) {
    const chosen = chooseCutters(job, id, rack, planning, fixed);
    if (!chosen) continue;
    job = chosen.job;
    choices.push(chosen.choice);
  }
  return { job, choices };
}

/** The sets that are worth a look, with their estimates. */
function estimatedSets(
  sets: Sets,
  rack: readonly Cutter[],
  { own, help, fixed, mine }: Choosable & { fixed: Fixed; mine: Cutter },
): Tried[] {
  const cutters = candidates(rack, sets.tries);
  const firsts = own && fixed.own ? [mine] : cutters;
  const tried = firsts.map((c) => sets.estimated([c]));
  if (!own) tried.unshift(sets.estimated([]));
  if (!help || (own && fixed.helpers)) return tried;
  const singles = own && fixed.own ? cutters.map((c) => sets.estimated([c])) : tried;
  const isEnough = leavesEnough(singles);
  // After a cut's own cutter comes the widest that reaches as far as any must: a finer one takes longer for no more.
  const enough = singles.find((t) => Number.isFinite(t.seconds) && isEnough(t))?.cutters ?? [];
  const nexts = own ? enough : cutters;
  const pairs = firsts
    .flatMap((first) => nexts.filter((n) => n.diameter < first.diameter).map((next) => [first, next]))
    .map(([first, next]) => ({ first, next, ...sets.atLeast(first, next) }));
  const usual = (p: Pair) => p.seconds + (SECOND.usual - 1) * p.second;
  const told: (Pair & { beyond: number })[] = [];
  for (const pair of pairs.sort((a, b) => usual(a) - usual(b))) {
    const best = Math.min(...tried.filter(isEnough).map((t) => t.seconds));
    if (WORTH_A_CHANGE * (pair.seconds + beyondLeast(pair, told)) >= best) continue;
    const estimate = sets.estimated([pair.first, pair.next]);
    if (Number.isFinite(estimate.seconds)) told.push({ ...pair, beyond: estimate.seconds - pair.seconds });
    tried.push(estimate);
  }
  return tried;
}

/** Two cutters, one after the other: what they take at least, and the second one of that, s. */
interface Pair {
  first: Cutter;
  next: Cutter;
  seconds: number;
  second: number;
}

/**
 * What a second cutter takes is so many times the least, usually: on eight pictures from 2.2 to 21. Where it is many
 * times the least after one first cutter it is after another: this share of up to `most` can be counted on (on four
 * pictures that had two such pairs each of them was 3.3 or more).
 */
const SECOND = { usual: 3, alike: 0.85, most: 4 };

/** How much longer than at least a pair takes, as far as others tell that were estimated; s. */
function beyondLeast({ first, next, second }: Pair, told: readonly (Pair & { beyond: number })[]): number {
  // A wider first cutter leaves all that a narrower one does, and a narrower second one goes over all that a wider
  // one does: what those cost beyond the least, these cost too.
  const easier = told.filter((t) => t.first.diameter <= first.diameter && t.next.diameter >= next.diameter);
  const alike = told.filter((t) => t.next === next);
  return Math.max(
    0,
    ...easier.map((t) => t.beyond),
    ...alike.map((t) => second * (SECOND.alike * Math.min(SECOND.most, 1 + t.beyond / t.second) - 1)),
  );
}

/** Whether a set leaves no more than the one that leaves least, but for what nobody would change a cutter for. */
function leavesEnough(tried: readonly Tried[]): (t: Tried) => boolean {
  const least = leastOf(tried.filter((t) => Number.isFinite(t.seconds)).map((t) => t.left));
  return ({ left }) => !isMore(left, least);
}

/**
 * Sets with the nearest to the best planned, those first; what was only estimated does not come before them.
 * @param near estimates within this of the best are planned too; null: those that promise less than what is planned
 */
function planned(sets: Sets, possible: readonly Tried[], near: number | null): Tried[] {
  const done = new Map<Tried, Tried>();
  const best = Math.min(...possible.map((t) => t.seconds));
  for (const t of inTurn(possible)) {
    const fastest = Math.min(...[...done.values()].map((p) => p.seconds));
    // Where an estimate was no good the others may be as good as the plan is bad.
    const isTold = near !== null && fastest <= WELL_TOLD * best;
    const promises = t.seconds <= (isTold ? near * best : fastest / WORTH_A_CHANGE);
    if (Number.isFinite(fastest) && (!promises || done.size >= MOST_PLANNED)) continue;
    // More cutters that promise no less time than fewer take.
    const fewer = [...done].filter(([e]) => e.cutters.length < t.cutters.length);
    const isNoBetter = ([e, p]: [Tried, Tried]) =>
      p.seconds <= WORTH_A_CHANGE * t.seconds || (isTold && e.seconds <= ALIKE * t.seconds);
    if (fewer.some(isNoBetter)) continue;
    done.set(t, sets.planned(t));
  }
  // Sets that were not planned are told by the error of the fastest planned one: an estimate that is as much too short
  // as that one's was must not make them look quicker than what is taken.
  const scale = near === null ? 1 : errorOf(done);
  const all = possible
    .map((t) => done.get(t) ?? { ...t, seconds: scale * t.seconds })
    .filter((t) => Number.isFinite(t.seconds));
  // Where every planned one was stopped, it is for the findings to say why.
  if (all.length === 0) return [...possible];
  return all.sort((a, b) => Number(b.isPlanned) - Number(a.isPlanned) || a.seconds - b.seconds);
}

/** How many times its estimate the fastest of some planned sets takes; 1 where none can be cut. */
function errorOf(done: ReadonlyMap<Tried, Tried>): number {
  const byTime = [...done].sort(([, a], [, b]) => a.seconds - b.seconds);
  const [estimate, plan] = byTime[0].map((t) => t.seconds);
  return Number.isFinite(plan) ? plan / estimate : 1;
}

/** Sets in the order in which they are planned: the best first, those with more cutters as if they took longer. */
function inTurn(possible: readonly Tried[]): Tried[] {
  const counted = ({ seconds, cutters }: Tried) => seconds * ALIKE ** cutters.length;
  return [...possible].sort((a, b) => counted(a) - counted(b));
}

/** The cutters of a kind, largest first, no two alike. */
function candidates(rack: readonly Cutter[], kind: Cutter["kind"]): Cutter[] {
  const bySize = new Map<number, Cutter>();
  for (const c of rack.filter(isOwned))
    if (c.kind === kind && (!bySize.has(c.diameter) || (c.centreCutting && !bySize.get(c.diameter)!.centreCutting)))
      bySize.set(c.diameter, c);
  const all = [...bySize.values()].sort((a, b) => b.diameter - a.diameter);
  if (all.length <= MOST_CUTTERS) return all;
  return Array.from({ length: MOST_CUTTERS }, (_, k) => all[Math.round((k * (all.length - 1)) / (MOST_CUTTERS - 1))]);
}

/** The set that was taken against the fastest of each other number of cutters, and the quickest that leaves more. */
function reasonOf(taken: Tried, others: readonly Tried[], less: readonly Tried[]): string {
  const rivals = [0, 1, 2]
    .map((n) => others.find((t) => t.cutters.length === n))
    .filter((t) => t !== undefined)
    .sort((a, b) => a.seconds - b.seconds);
  const words = rivals.map((t) => `${setName(t, "without any")} ${formatTime(t.seconds)}`);
  const quicker = less.find((t) => t.seconds < taken.seconds);
  if (quicker) {
    const price = `but leaves ${leavesMore(quicker.left, taken.left)}`;
    words.push(`${setName(quicker, "without any")} ${formatTime(quicker.seconds)}, ${price}`);
  }
  return `${setName(taken, "none")}: ${formatTime(taken.seconds)}${words.map((w) => `; ${w}`).join("")}`;
}

const setName = ({ cutters }: Tried, none: string): string => (cutters.length === 0 ? none : describeCutters(cutters));
