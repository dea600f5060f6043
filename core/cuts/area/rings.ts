import { inset } from "../../geometry/clearance/clearance.ts";
import { boundsOf, type Box, ringCount, type Rings } from "../../geometry/rings.ts";
import { cutAlong, type Loop, unroll } from "../../toolpath/loops.ts";
import type { Ground } from "./ground.ts";
import type { AreaPlan, Level } from "./level.ts";
import { cutPips } from "./pips.ts";

/** A ring of one step; rings of the next step farther in lie beside it. */
interface Ring {
  rings: Rings;
  k: number;
  step: number;
  box: Box;
  inner: Neighbour[];
  cut: boolean;
}

/** A ring one step farther in: its point `at` and this one's point `mine` are `d` mm apart. */
interface Neighbour {
  ring: Ring;
  at: number;
  mine: number;
  d: number;
}

/**
 * Clears one level in rings at even steps from the edge, each after the ones farther in beside it, so that the cutter
 * works outwards into solid stock with at most a step of it to one side. Goes from ring to ring at depth where they are
 * neighbours, and down through ground already open where it can.
 * @returns whether anything was there to clear
 */
export function clearRings(g: Ground, level: Level): boolean {
  const { w, p } = g;
  g.begin(level);
  const steps = ringSteps(p, level);
  if (steps.length === 0) return false;
  let here = 0;
  const outermost = steps[0].filter((r) => !r.cut);
  // Nearest next among what is left; every ring is reached from the outermost one it lies beside, or is its own start.
  while (outermost.length > 0) {
    let best = 0;
    if (!Number.isNaN(w.x)) {
      let near = Infinity;
      outermost.forEach((r, i) => {
        const d = boxDistance(r.box, w.x, w.y);
        if (d < near) [near, best] = [d, i];
      });
    }
    here += cutWithInner(g, level, outermost.splice(best, 1)[0]);
  }
  for (const rings of steps) for (const r of rings) if (!r.cut) here += cutWithInner(g, level, r);
  cutPips(g, level);
  return here > 0;
}

/** The rings of every step, each knowing its neighbours farther in. */
function ringSteps(p: AreaPlan, level: Level): Ring[][] {
  const out: Ring[][] = [];
  for (let step = 0; level.from + step * p.stepover < p.c.widest; step++) {
    const { rings } = inset(p.c, level.from + step * p.stepover);
    const here: Ring[] = [];
    for (let k = 0; k < ringCount(rings); k++)
      here.push({
        rings,
        k,
        step,
        box: boundsOf(rings.xy, rings.starts[k], rings.starts[k + 1]),
        inner: [],
        cut: false,
      });
    if (step > 0) for (const r of here) beside(r, out[step - 1], linkMost(step) * p.stepover + 1e-6);
    out.push(here);
  }
  return out;
}

/** Points of a ring tried when looking for its neighbours. */
const TRIES = 7;

/** Tells the rings one step farther out that lie within `most` of this one about it. */
function beside(r: Ring, outer: readonly Ring[], most: number): void {
  const from = r.rings.starts[r.k];
  const n = r.rings.starts[r.k + 1] - from;
  for (const o of outer) {
    let best: Neighbour | null = null;
    for (let q = 0; q < Math.min(TRIES, n); q++) {
      const at = from + Math.floor((q * n) / Math.min(TRIES, n));
      const [x, y] = [r.rings.xy[2 * at], r.rings.xy[2 * at + 1]];
      if (boxDistance(o.box, x, y) > most) continue;
      const hit = nearestPoint(o, x, y);
      if (hit.d <= most && (!best || hit.d < best.d))
        best = { ring: r, at: at - from, mine: hit.i - o.rings.starts[o.k], d: hit.d };
    }
    if (best) o.inner.push(best);
  }
}

const boxDistance = (b: Box, x: number, y: number): number =>
  Math.max(b.minX - x, x - b.maxX, b.minY - y, y - b.maxY, 0);

function nearestPoint(r: Ring, x: number, y: number): { i: number; d: number } {
  const { xy, starts } = r.rings;
  let best = starts[r.k];
  let near = Infinity;
  for (let i = best; i < starts[r.k + 1]; i++) {
    const d = (xy[2 * i] - x) ** 2 + (xy[2 * i + 1] - y) ** 2;
    if (d < near) {
      near = d;
      best = i;
    }
  }
  return { i: best, d: Math.sqrt(near) };
}

/**
 * Cuts a ring after everything farther in beside it. Without recursion: rings may be thousands deep.
 * @returns rings cut
 */
function cutWithInner(g: Ground, level: Level, outermost: Ring): number {
  let cut = 0;
  const stack: { ring: Ring; next: number }[] = [{ ring: outermost, next: 0 }];
  outermost.cut = true;
  while (stack.length > 0) {
    const top = stack[stack.length - 1];
    const child = top.ring.inner[top.next++];
    if (child) {
      if (child.ring.cut) continue;
      child.ring.cut = true;
      stack.push({ ring: child.ring, next: 0 });
      continue;
    }
    stack.pop();
    cutRing(g, level, top.ring);
    cut++;
  }
  return cut;
}

function cutRing(g: Ground, level: Level, r: Ring): void {
  const { w, p } = g;
  const { xy, starts } = r.rings;
  const [s, e] = [starts[r.k], starts[r.k + 1]];
  const last = r.inner.length > 0 ? nearestPoint(r, w.x, w.y) : null;
  let loop: Loop | null;
  if (last && w.z === level.z1 && last.d <= linkMost(r.step + 1) * p.stepover + 1e-6) {
    loop = unroll(xy, s, e, last.i - s, p.conventional);
    w.to(loop.x[0], loop.y[0], level.z1);
  } else loop = g.enterLoop(unroll(xy, s, e, r.inner[0]?.mine ?? 0, p.conventional));
  if (loop) cutAlong(w, loop.x, loop.y, 0, loop.x.length - 1, level.z1);
}

/**
 * Longest way from a ring to the next one out that certainly stays inside, in steps: with d(P) and d(Q) at its ends a
 * way of length L nowhere comes nearer to the edge than (d(P) + d(Q) − L) / 2.
 */
const linkMost = (step: number): number => Math.min(1.5, 2 * step - 1);
