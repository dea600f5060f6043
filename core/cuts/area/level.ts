import type { Clearance } from "../../geometry/clearance/clearance.ts";
import type { Leeway } from "../../geometry/leeway.ts";
import type { Reach } from "./reached.ts";

/** One depth of an area that is cleared in steps. */
export interface Level {
  /** the floor of the level above, and of this one; 0 or negative, mm */
  z0: number;
  z1: number;
  /** the cutter's centre keeps this far from the region's edge, mm */
  from: number;
}

/** How an area is cleared. */
export interface AreaPlan {
  c: Clearance;
  /** of the cutter, mm */
  radius: number;
  stepover: number;
  /** fall over run when the cutter sinks along its path */
  slope: number;
  entry: Entry;
  /** the cutter cuts at its centre, so that it may go straight down into a small post */
  centre: boolean;
  /** whether ring paths go against the usual, climbing way */
  conventional: boolean;
  /** earlier cutters, and how far they keep from the walls at the floor */
  before?: readonly Reach[];
  /** whether nothing is left to cut at a place with clearance d at this level: an earlier cutter took it */
  done?: (x: number, y: number, d: number, level: Level) => Leeway;
}

/** How a cutter gets down into solid stock. `auto`: a helix where there is room, else along the path. */
export type Entry = "auto" | "helix" | "ramp" | "plunge";

/** Levels from the stock's top to `depth` in even steps of at most `stepdown`. */
export function levels(depth: number, stepdown: number, from: (depth: number) => number): Level[] {
  const n = Math.max(1, Math.ceil(depth / stepdown - 1e-6));
  return Array.from({ length: n }, (_, k) => {
    const z1 = (depth * (k + 1)) / n;
    return { z0: (-depth * k) / n, z1: -z1, from: from(z1) };
  });
}
