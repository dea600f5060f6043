import { along3, type Loop, rampDown, rotate } from "../../toolpath/loops.ts";
import { NEAR, type ToolpathWriter } from "../../toolpath/toolpath.ts";
import type { AreaPlan, Level } from "./level.ts";

/** A helix this share of the cutter's radius wide leaves no post in its middle. */
const HELIX_SHARE = 0.8;
/** A helix narrower than this share of the radius is as good as a plunge. */
const LEAST_HELIX = 0.3;

/** Above a place and down to just over the floor of the level above, which is already open there. */
export function overFloor(w: ToolpathWriter, x: number, y: number, z0: number): void {
  w.above(x, y);
  if (z0 < 0) w.rapidTo(z0 + NEAR);
}

/**
 * Gets the cutter to the start of a closed loop at a level's depth through solid stock.
 * @param slack how far the loop lies inside the ground the cutter may use, mm: room for a helix
 * @returns the loop, begun where the cutter now is
 */
export function enterLoop(w: ToolpathWriter, p: AreaPlan, level: Level, loop: Loop, slack: number): Loop {
  const { z0, z1 } = level;
  const helix = Math.min(HELIX_SHARE * p.radius, slack);
  if (p.entry === "plunge") {
    overFloor(w, loop.x[0], loop.y[0], z0);
    w.plunge(z1);
    return loop;
  }
  if (p.entry !== "ramp" && helix >= LEAST_HELIX * p.radius) {
    sinkHelix(w, loop.x[0], loop.y[0], helix, z0, z1, p.slope, !p.conventional);
    w.to(loop.x[0], loop.y[0], z1);
    return loop;
  }
  overFloor(w, loop.x[0], loop.y[0], z0);
  if (w.z > z0) w.to(loop.x[0], loop.y[0], z0);
  return rotate(loop, rampDown(w, loop, z0, z1, p.slope));
}

/** Down round a circle about (x, y), half turns so that every arc has one plane direction; ends on the circle at depth, with one level turn. */
export function sinkHelix(w: ToolpathWriter, x: number, y: number, radius: number, z0: number, z1: number, slope: number, ccw: boolean): void {
  overFloor(w, x + radius, y, z0);
  if (w.z > z0) w.to(x + radius, y, z0);
  const fall = Math.PI * radius * slope;
  const halves = Math.max(2, 2 * Math.ceil((z0 - z1) / (2 * fall)));
  for (let k = 1; k <= halves + 2; k++) {
    const z = k >= halves ? z1 : z0 + ((z1 - z0) * k) / halves;
    w.arc(ccw, x, y, x + (k % 2 ? -radius : radius), y, z);
  }
}

/** A line too short to sink along at the wanted angle is sunk along steeper: no more than this many turns to and fro. */
const MOST_TURNS = 40;

/** Gets the cutter to the beginning of an open line at a level's depth: sinking to and fro along it, or by a plunge. */
export function sinkAlong(w: ToolpathWriter, p: Pick<AreaPlan, "entry" | "slope">, level: Pick<Level, "z0" | "z1">, x: Float64Array, y: Float64Array): void {
  const { z0, z1 } = level;
  overFloor(w, x[0], y[0], z0);
  if (p.entry === "plunge") return w.plunge(z1);
  let length = 0;
  for (let i = 1; i < x.length; i++) length += Math.hypot(x[i] - x[i - 1], y[i] - y[i - 1]);
  if (length < 1e-6) return w.plunge(z1);
  if (w.z > z0) w.to(x[0], y[0], z0);
  const turns = Math.min(MOST_TURNS, 2 * Math.ceil((z0 - z1) / (2 * length * p.slope)));
  const fall = (z0 - z1) / (turns * length);
  let z = z0;
  for (let turn = 0; turn < turns; turn++) {
    const way = [[...x], [...y]].map((v) => (turn % 2 ? v.reverse() : v));
    const zs = [z];
    for (let q = 1; q < x.length; q++) zs.push((z -= fall * Math.hypot(way[0][q] - way[0][q - 1], way[1][q] - way[1][q - 1])));
    if (turn === turns - 1) zs[zs.length - 1] = z1;
    along3(w, way[0], way[1], zs);
  }
}
