import { backwards, type Trail, trails } from "../../geometry/trail.ts";
import { cutAlong } from "../../toolpath/loops.ts";
import { nearestOrder } from "../../toolpath/order.ts";
import type { Ground } from "./ground.ts";
import type { AreaPlan, Level } from "./level.ts";
import { hypot } from "../../hypot.ts";

/** Below this slope of clearance along the axis there is no corner, only a middle. */
const MIDDLE_SLOPE = 0.05;

/**
 * Rings leave pips where they turn sharply: along the axis two rings' corners are stepover / sin(half angle) apart,
 * more than the cutter covers.
 * @returns those stretches of the axis; z is the clearance, mm
 */
export function pipsOf(p: AreaPlan, level: Level): Trail[] {
  const { axis, kept } = p.c;
  const { from } = level;
  const a: number[] = [];
  const b: number[] = [];
  const isDone = (n: number) => p.done !== undefined && p.done(axis.x[n], axis.y[n], axis.d[n], level) > 0;
  for (let e = 0; e < axis.a.length; e++) {
    if (!kept[e]) continue;
    const i = axis.a[e];
    const j = axis.b[e];
    const lo = Math.min(axis.d[i], axis.d[j]);
    if (lo < from) continue;
    const len = hypot(axis.x[i] - axis.x[j], axis.y[i] - axis.y[j]);
    if (len < 1e-6) continue;
    const slope = Math.abs(axis.d[i] - axis.d[j]) / len;
    // Gap between the corners of neighbouring rings, and how far to either side each ring's own cut reaches.
    if (p.stepover < slope * 1.9 * p.radius) continue;
    const beyond = (lo - from) / p.stepover;
    if (slope < MIDDLE_SLOPE && (beyond - Math.floor(beyond)) * p.stepover < 0.95 * p.radius) continue;
    if (isDone(i) && isDone(j)) continue;
    a.push(i);
    b.push(j);
  }
  return trails(axis.x, axis.y, axis.d, a, b);
}

/** Cuts along pips of a level. */
export function cutPips(g: Ground, paths: readonly Trail[], level: Level): void {
  const { w } = g;
  const order = nearestOrder(
    paths.map((t) => ({ x0: t.x[0], y0: t.y[0], x1: t.x[t.x.length - 1], y1: t.y[t.y.length - 1] })),
    w.x,
    w.y,
  );
  for (const { index, reverse } of order) {
    const { x, y } = reverse ? backwards(paths[index]) : paths[index];
    if (g.enter(x, y, false) >= 0) cutAlong(w, x, y, 0, x.length - 1, level.z1);
  }
}
