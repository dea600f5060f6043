import { type Clearance, inset } from "../../geometry/clearance/clearance.ts";
import { boundsOf, type Box, ringCount, type Rings } from "../../geometry/rings.ts";
import type { Trail } from "../../geometry/trail.ts";
import { noProgress, type Progress } from "../../problem.ts";
import { cutAlong, type Loop, unroll } from "../../toolpath/loops.ts";
import type { Ground } from "./ground.ts";
import type { AreaPlan, Level } from "./level.ts";
import { Parts } from "./parts.ts";
import { cutPips, pipsOf } from "./pips.ts";

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

/** Passes along the walls, nearer to them than the rings, before those of their level or after. */
export interface WallPasses {
  from: number;
  comeFirst: boolean;
}

/** What is to be cut of one part at every level that keeps as far from the edge. */
interface Share {
  /** the outermost first */
  rings: Ring[];
  pips: Trail[];
  /** rings along its walls */
  walls: Ring[];
}

/** A part of an area, with what is to be cut of it level by level. */
interface Part {
  /** round all of it */
  box: Box;
  levels: { level: Level; share: Share }[];
}

/**
 * Clears an area in rings at even steps from the edge, each after the ones farther in beside it, so that the cutter
 * works outwards into solid stock with at most a step of it to one side. Goes from ring to ring at depth where they are
 * neighbours, and down through ground already open where it can. What hangs together is cut down to its last level
 * before the cutter is lifted to another part.
 * @param levels the shallowest first, each no nearer to the edges than the one above
 * @returns whether anything was there to clear
 */
export function clearRings(
  g: Ground,
  levels: readonly Level[],
  walls: WallPasses | null = null,
  progress: Progress = noProgress,
): boolean {
  const left = partsOf(g.p, levels, walls);
  const count = left.length;
  let any = false;
  while (left.length > 0) {
    const [part] = left.splice(nearest(left, g), 1);
    let above = part.levels[0].level.from;
    for (const { level, share } of part.levels) {
      g.begin(level, Math.min(above, walls?.from ?? above));
      if (walls?.comeFirst) cutWalls(g, share, { ...level, from: walls.from });
      if (cutShare(g, share, level)) any = true;
      if (walls && !walls.comeFirst) cutWalls(g, share, { ...level, from: walls.from });
      above = level.from;
    }
    progress(1 - left.length / count);
  }
  return any;
}

function partsOf(p: AreaPlan, levels: readonly Level[], walls: WallPasses | null): Part[] {
  const widest = Math.min(...levels.map((l) => l.from), walls?.from ?? Infinity);
  const parts = new Parts(inset(p.c, widest).rings);
  const all = new Map<number, Part>();
  const shares = new Map<number, Map<number, Share>>();
  for (const level of levels) {
    // Levels between upright walls are alike.
    const here = shares.get(level.from) ?? sharesAt(p, level, walls, parts);
    shares.set(level.from, here);
    for (const [at, share] of here) {
      const part = all.get(at);
      if (part) part.levels.push({ level, share });
      else all.set(at, { box: parts.boxOf(at), levels: [{ level, share }] });
    }
  }
  return [...all.values()];
}

/** What is to be cut at a level, part by part. */
function sharesAt(p: AreaPlan, level: Level, walls: WallPasses | null, parts: Parts): Map<number, Share> {
  const shares = new Map<number, Share>();
  const shareOf = (part: number): Share => {
    const share = shares.get(part) ?? { rings: [], pips: [], walls: [] };
    shares.set(part, share);
    return share;
  };
  for (const r of ringSteps(p, level).flat()) shareOf(parts.ofRing(r.rings, r.k)).rings.push(r);
  for (const t of pipsOf(p, level)) shareOf(parts.at(t.x[0], t.y[0])).pips.push(t);
  if (walls) for (const r of ringsAt(p.c, walls.from, 0)) shareOf(parts.ofRing(r.rings, r.k)).walls.push(r);
  return shares;
}

/** Which of some things is nearest to where the cutter is; the first before it is anywhere. */
function nearest(all: readonly { box: Box }[], { w }: Ground): number {
  let best = 0;
  let near = Infinity;
  all.forEach(({ box }, i) => {
    const d = boxDistance(box, w.x, w.y);
    if (d < near) [near, best] = [d, i];
  });
  return best;
}

/** Cuts the rings of a part at a level, then what they leave between them. @returns whether there were any rings */
function cutShare(g: Ground, { rings, pips }: Share, level: Level): boolean {
  let here = 0;
  for (const r of rings) r.cut = false;
  // Nearest next among what is left; every ring is reached from the outermost one it lies beside, or is its own start.
  const outermost = rings.filter((r) => r.step === 0);
  while (outermost.length > 0) here += cutWithInner(g, level, outermost.splice(nearest(outermost, g), 1)[0]);
  for (const r of rings) if (!r.cut) here += cutWithInner(g, level, r);
  cutPips(g, pips, level);
  return here > 0;
}

/** Once round every wall of a part. @param level as near to them as they are */
function cutWalls(g: Ground, { walls }: Share, level: Level): void {
  const before = g.comesNearer(level);
  for (const { rings, k } of walls) cutRound(g, rings, k, level);
  g.comesNearer(before);
}

/** Once round a ring, from wherever there is a way in to it. */
export function cutRound(g: Ground, { xy, starts }: Rings, k: number, level: Level): void {
  const loop = g.enterLoop(unroll(xy, starts[k], starts[k + 1], 0, g.p.conventional));
  if (loop) cutAlong(g.w, loop.x, loop.y, 0, loop.x.length - 1, level.z1);
}

/** The rings of every step, each knowing its neighbours farther in. */
function ringSteps(p: AreaPlan, level: Level): Ring[][] {
  const out: Ring[][] = [];
  for (let step = 0; level.from + step * p.stepover < p.c.widest; step++) {
    const here = ringsAt(p.c, level.from + step * p.stepover, step);
    if (step > 0) for (const r of here) beside(r, out[step - 1], linkMost(step) * p.stepover + 1e-6);
    out.push(here);
  }
  return out;
}

const ringsAt = (c: Clearance, d: number, step: number): Ring[] => {
  const { rings } = inset(c, d);
  return Array.from({ length: ringCount(rings) }, (_, k) => ({
    rings,
    k,
    step,
    box: boundsOf(rings.xy, rings.starts[k], rings.starts[k + 1]),
    inner: [],
    cut: false,
  }));
};

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
