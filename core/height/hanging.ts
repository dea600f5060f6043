import type { Profile } from "../cutters/profile.ts";
import { RIM } from "./squares.ts";

/** Steps of a table for each cell. */
const STEPS = 4;

/**
 * How high samples of a surface may hold a cutter's tip, by how far they are from its axis: by themselves, and by the
 * surface between them and their neighbours. Up to a cell before its rim that is little more, by how round the
 * cutter is; near the rim, where the cutter ends between samples, the surface may hold it anywhere there.
 * Distances in cells, heights in mm.
 */
export class Hanging {
  /** farther away nothing of a sample holds the cutter */
  readonly end: number;
  /** from here on a sample is near the rim */
  readonly rim: number;
  /** where it ends */
  readonly radius: number;
  private readonly more: Float64Array;

  /** @param isBetween whether the surface between samples counts */
  constructor(
    private readonly p: Profile,
    private readonly cell: number,
    private readonly isBetween: boolean,
  ) {
    this.radius = (p.radius * RIM) / cell;
    const steps = Math.floor((p.radius / cell - 1) * STEPS);
    this.rim = isBetween ? Math.max(0, steps / STEPS) : this.radius;
    this.end = isBetween ? this.radius + beyond(this.radius) : this.radius;
    this.more = isBetween && steps > 0 ? besideFor(p, cell, steps) : new Float64Array(1);
  }

  /** The cutter's height over a sample; Infinity beyond its rim. */
  height(r: number): number {
    return r > this.radius ? Infinity : this.p.h(Math.min(this.p.radius, r * this.cell));
  }

  /** How much higher than by itself a sample may hold the tip by what lies beside it; Infinity near the rim. */
  beside(r: number): number {
    if (!this.isBetween) return 0;
    return r >= this.rim ? Infinity : this.more[Math.ceil(r * STEPS)];
  }

  /** How high above itself a sample before the rim may hold it that is no nearer than `r0` and no farther than `r1`. */
  inner(r0: number, r1: number): number {
    if (r0 > this.rim) return -Infinity;
    let most = 0;
    const last = Math.min(this.more.length - 1, Math.ceil(r1 * STEPS));
    for (let k = Math.floor(r0 * STEPS); k <= last; k++) most = Math.max(most, this.more[k]);
    return most - this.height(r0);
  }

  /**
   * The same near the rim, above the highest of the sample and those round it. What lies between four samples is told
   * by that of them which is nearest to the axis: hardly anything there is nearer.
   */
  near(r0: number, r1: number): number {
    if (!this.isBetween || r1 < this.rim || r0 > this.end) return -Infinity;
    const nearest = Math.max(r0, this.rim);
    return -this.height(Math.min(this.radius, Math.max(0, nearest - beyond(nearest))));
  }
}

/** How much nearer to the axis than the nearest of four samples something between them may be: beside the axis all. */
const beyond = (r: number): number => (r < 2 ? r : 1 / (4 * r));

/**
 * How much higher than by a sample a cutter may be held by straight lines from it to its neighbours, mm, by how far
 * that is from the axis: half a cell squared times how round the cutter is there, along its radius or round its axis,
 * whichever is more.
 */
function besideFor(p: Profile, cell: number, steps: number): Float64Array {
  return Float64Array.from({ length: steps + 1 }, (_, k) => {
    const r = (k / STEPS) * cell;
    const along = p.h(Math.min(p.radius, r + cell)) - 2 * p.h(r) + p.h(Math.abs(r - cell));
    const round = ((p.h(Math.min(p.radius, r + cell)) - p.h(r)) * cell) / Math.max(r, cell);
    return Math.max(0, along, round) / 4;
  });
}
