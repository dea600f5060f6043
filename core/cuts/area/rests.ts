import Flatbush from "flatbush";
import { inset } from "../../geometry/clearance/clearance.ts";
import { Groups } from "../../geometry/groups.ts";
import { ringCount } from "../../geometry/rings.ts";
import { backwards, type Trail } from "../../geometry/trail.ts";
import { cutAlong, loopOf, rotate } from "../../toolpath/loops.ts";
import { nearestOrder } from "../../toolpath/order.ts";
import { openRuns } from "../../toolpath/stretches.ts";
import type { Kept } from "../../kept.ts";
import { type Ground, nearestOn } from "./ground.ts";
import type { AreaPlan, Level } from "./level.ts";
import { pipsOf } from "./pips.ts";
import type { Spot } from "./sink.ts";
import { hypot } from "../../hypot.ts";

/** A stretch of a ring, or along the axis, that earlier cutters left. */
export interface Run {
  x: Float64Array;
  y: Float64Array;
  closed: boolean;
  /** clearance at its beginning, mm */
  d: number;
  /** how many steps in from the edge; −1 for stretches along the axis, which come last */
  step: number;
  /** from the end of the one before it in its corner, to the first from the end of the last; mm */
  way: number;
  /** the same the other way round, where it may be cut either way */
  back?: Run;
}

/** Stretches so near to each other, in stepovers, lie in one corner. */
const TOGETHER = 1.5;

/**
 * Clears what earlier cutters left of an area, one corner after another and each down to the floor before the next is
 * gone to: stretches of rings, those that lie deeper in the open first, then along the axis where rings leave pips.
 * @param levels all of them as far from the edge as the last
 * @returns whether anything was left
 */
export function clearRests(g: Ground, levels: readonly Level[], kept: Kept): boolean {
  const corners = restsOf(g.p, levels[levels.length - 1], kept);
  const starts = corners.map(([r]) => ({ x0: r.x[0], y0: r.y[0], x1: r.x[0], y1: r.y[0] }));
  for (const { index } of nearestOrder(starts, g.w.x, g.w.y))
    for (const level of levels) {
      g.begin(level);
      for (const run of corners[index]) cutRun(g, run, level);
    }
  return corners.length > 0;
}

/** Pairs of cutters of which it is kept what the second takes: choosing tries no more than a few. */
const RESTS = 8;

/**
 * What is left on the floor, by the corners that it lies in, each in the order in which it is cut; kept: telling how
 * long it takes and planning it ask for the same.
 */
export const restsOf = (p: AreaPlan, floor: Level, kept: Kept): readonly Run[][] =>
  kept.of<readonly unknown[], readonly Run[][]>(
    "rests",
    [p.c, p.radius, p.stepover, p.before, floor],
    () => (p.done ? cornersOf(runsOf(p, floor), TOGETHER * p.stepover) : []),
    RESTS,
  );

/** Every stretch that is left on the floor. */
function runsOf(p: AreaPlan, floor: Level): Run[] {
  const out: Run[] = [];
  for (let step = 0; floor.from + step * p.stepover < p.c.widest; step++) {
    const d = floor.from + step * p.stepover;
    // Told by the clearance alone: so far inside earlier cutters were everywhere.
    if (p.done!(p.c.axis.x[0], p.c.axis.y[0], d, floor) === Infinity) break;
    const { rings } = inset(p.c, d);
    for (let k = 0; k < ringCount(rings); k++)
      for (const { x, y } of openRuns(rings.xy, rings.starts[k], rings.starts[k + 1], (u, v) =>
        p.done!(u, v, d, floor),
      ))
        out.push({ x, y, closed: x[0] === x[x.length - 1] && y[0] === y[y.length - 1], d, step, way: 0 });
  }
  for (const t of pipsOf(p, floor)) {
    const run = ({ x, y, z }: Trail): Run => ({ x, y, closed: false, d: z[0], step: -1, way: 0 });
    out.push({ ...run(t), back: run(backwards(t)) });
  }
  return out;
}

/** Stretches together that lie in one corner. */
function cornersOf(runs: readonly Run[], near: number): Run[][] {
  if (runs.length === 0) return [];
  const groups = new Groups(runs.length);
  const [xs, ys, of] = [[] as number[], [] as number[], [] as number[]];
  runs.forEach((run, i) => {
    for (const [x, y] of placesAlong(run, near / 2)) {
      xs.push(x);
      ys.push(y);
      of.push(i);
    }
  });
  const index = new Flatbush(xs.length);
  xs.forEach((x, k) => index.add(x, ys[k], x, ys[k]));
  index.finish();
  const beside = runs.map(() => new Set<number>());
  xs.forEach((x, k) => {
    index.search(x - near, ys[k] - near, x + near, ys[k] + near, (q) => {
      if (of[q] >= of[k] || hypot(xs[q] - x, ys[q] - ys[k]) > near) return false;
      groups.join(of[k], of[q]);
      beside[of[k]].add(of[q]);
      beside[of[q]].add(of[k]);
      return false;
    });
  });
  const corners = new Map<number, number[]>();
  runs.forEach((_, i) => {
    const corner = corners.get(groups.find(i));
    if (corner) corner.push(i);
    else corners.set(groups.find(i), [i]);
  });
  return [...corners.values()].map((corner) => inOrder(runs, corner, beside));
}

/**
 * The order in which the stretches of a corner are cut: always the nearest of those beside which all is cut that lies
 * deeper in the open, so that the cutter never has stock on both sides.
 * @param beside the stretches beside each
 */
function inOrder(runs: readonly Run[], corner: readonly number[], beside: readonly Set<number>[]): Run[] {
  const deeper = (i: number) => [...beside[i]].filter((j) => runs[j].step > runs[i].step).length;
  const waiting = new Map(corner.map((i) => [i, deeper(i)]));
  const ready = new Set(corner.filter((i) => waiting.get(i) === 0));
  const out: Run[] = [];
  let next = corner.reduce((a, b) => (runs[b].step > runs[a].step ? b : a));
  let run = runs[next];
  let way = 0;
  let here = spotOf(run, 0);
  while (ready.size > 0) {
    ready.delete(next);
    out.push({ ...run, way });
    for (const j of beside[next]) {
      if (runs[j].step >= run.step) continue;
      waiting.set(j, waiting.get(j)! - 1);
      if (waiting.get(j) === 0) ready.add(j);
    }
    if (!run.closed) here = spotOf(run, run.x.length - 1);
    way = Infinity;
    let begin = here;
    for (const i of ready)
      for (const either of [runs[i], runs[i].back]) {
        if (!either) continue;
        const place = beginOf(either, here);
        const d = hypot(place.x - here.x, place.y - here.y);
        if (d < way) [way, next, run, begin] = [d, i, either, place];
      }
    here = begin;
  }
  const { x, y } = beginOf(out[0], here);
  out[0].way = hypot(x - here.x, y - here.y);
  return out;
}

const spotOf = ({ x, y }: Run, i: number): Spot => ({ x: x[i], y: y[i] });

/** Where a run begins when one comes from a place: a closed one at its nearest corner. */
const beginOf = (run: Run, from: Spot): Spot => spotOf(run, run.closed ? nearestOn(run.x, run.y, from.x, from.y) : 0);

/** Both ends of a stretch, and places so far apart between them, mm. */
function placesAlong({ x, y }: Run, apart: number): [number, number][] {
  const last = x.length - 1;
  const out: [number, number][] = [[x[0], y[0]]];
  let since = 0;
  for (let k = 0; k < last; k++) {
    const [dx, dy] = [x[k + 1] - x[k], y[k + 1] - y[k]];
    const length = hypot(dx, dy);
    let at = apart - since;
    for (; at < length; at += apart) out.push([x[k] + (dx * at) / length, y[k] + (dy * at) / length]);
    since = length - (at - apart);
  }
  out.push([x[last], y[last]]);
  return out;
}

/** Cuts one stretch; a whole ring that no cutter has reached needs a way in like any other. */
function cutRun(g: Ground, run: Run, level: Level): void {
  const { w, p } = g;
  const end = run.x.length - 1;
  const isOpen = p.done!(run.x[0], run.y[0], run.d, level) > 0;
  const first = g.enter(run.x, run.y, run.closed, isOpen);
  if (first < 0) return;
  const { x, y } = run.closed ? rotate(loopOf(run.x, run.y), first) : run;
  cutAlong(w, x, y, 0, end, level.z1);
}
