import { cutAlong, loopOf, rampDown } from "../../toolpath/loops.ts";
import { NEAR, type ToolpathWriter } from "../../toolpath/toolpath.ts";
import { formatLength } from "../../units.ts";
import type { Note } from "../kind.ts";
import { hypot } from "../../hypot.ts";

/** A helix narrower than this share of the radius is as good as a plunge. */
export const LEAST_HELIX = 0.3;
/** How steeply flat cutters sink along lines where nothing is set for it: 3°, as the cuts' own ramps. */
export const FLAT_SLOPE = Math.tan((3 * Math.PI) / 180);
/** Lines shorter than this, mm, or that would be run to and fro more often than this, give no room to sink along. */
const LEAST_RAMP = 0.1;
const MOST_TURNS = 200;

/**
 * Above a place and down to just over the floor of the level above, which is already open there; nothing where the
 * cutter stands on that floor.
 */
export function overFloor(w: ToolpathWriter, x: number, y: number, z0: number): void {
  if (w.x === x && w.y === y && w.z === z0) return;
  w.above(x, y);
  if (z0 < 0) w.rapidTo(z0 + NEAR);
}

/**
 * Down round a circle about (x, y), half turns so that every arc has one plane direction; ends on the circle at depth,
 * with one level turn.
 */
export function sinkHelix(
  w: ToolpathWriter,
  x: number,
  y: number,
  radius: number,
  z0: number,
  z1: number,
  slope: number,
  ccw: boolean,
): void {
  overFloor(w, x + radius, y, z0);
  if (w.z > z0) w.to(x + radius, y, z0);
  const fall = Math.PI * radius * slope;
  const halves = Math.max(2, 2 * Math.ceil((z0 - z1) / (2 * fall) - 1e-9));
  for (let k = 1; k <= halves + 2; k++) {
    const z = k >= halves ? z1 : z0 + ((z1 - z0) * k) / halves;
    w.arc(ccw, x, y, x + (k % 2 ? -radius : radius), y, z);
  }
}

/**
 * How often a line is run to and fro to sink by `drop` no steeper than `slope`: an even number, so that it ends
 * where it began.
 */
const turnsAlong = (length: number, drop: number, slope: number): number =>
  2 * Math.ceil(drop / (2 * length * slope) - 1e-9);

/**
 * How long a way must be at least for a cutter to sink along it, mm: one that does not cut at its centre must move on
 * by more than that centre.
 */
export const leastRamp = ({ centre, radius }: { centre: boolean; radius: number }): number =>
  centre ? LEAST_RAMP : 2 * LEAST_HELIX * radius;

/** Length of a way, mm. */
export const wayLength = (x: ArrayLike<number>, y: ArrayLike<number>): number => {
  let sum = 0;
  for (let i = 1; i < x.length; i++) sum += hypot(x[i] - x[i - 1], y[i] - y[i - 1]);
  return sum;
};

/** Sinks to and fro along a line from z0 to z1 no steeper than `slope`; ends where the line begins. */
export function sinkAlong(
  w: ToolpathWriter,
  x: Float64Array,
  y: Float64Array,
  z0: number,
  z1: number,
  slope: number,
): void {
  overFloor(w, x[0], y[0], z0);
  if (w.z > z0) w.to(x[0], y[0], z0);
  const length = wayLength(x, y);
  const turns = turnsAlong(length, z0 - z1, slope);
  const fall = (z0 - z1) / (turns * length);
  let z = z0;
  for (let turn = 0; turn < turns; turn++) {
    const [wx, wy] = turn % 2 ? [x.slice().reverse(), y.slice().reverse()] : [x, y];
    const zs = [z];
    for (let q = 1; q < x.length; q++) zs.push((z -= fall * hypot(wx[q] - wx[q - 1], wy[q] - wy[q - 1])));
    if (turn === turns - 1) zs[zs.length - 1] = z1;
    cutAlong(w, wx, wy, 0, wx.length - 1, zs);
  }
}

export interface Spot {
  x: number;
  y: number;
}

/**
 * Ways of a flat cutter into solid stock along the path that it is about to cut: along a ramp no steeper than asked
 * where there is room, straight down where there is none and it cuts at its centre; else the place is left out. The
 * last two are told.
 */
export class WaysIn {
  private readonly plunged: Spot[] = [];
  private readonly leftOut: Spot[] = [];

  /**
   * @param radius of the cutter, mm
   * @param centre whether it cuts at its centre
   * @param slope fall over run of a ramp
   */
  constructor(
    private readonly radius: number,
    private readonly centre: boolean,
    private readonly slope: number,
  ) {}

  get hasLeftOut(): boolean {
    return this.leftOut.length > 0;
  }

  /** Whether a place nearby had no way in: nothing deeper has one either, since nothing was opened there. */
  isLeftOut(x: number, y: number): boolean {
    return this.leftOut.some((s) => hypot(s.x - x, s.y - y) < 2 * this.radius);
  }

  /**
   * From z0 to z1 along a path.
   * @param closed whether the path is a loop, its last point its first
   * @returns at which point of the path the cutter now is; −1 where the path is to be left out
   */
  sink(w: ToolpathWriter, x: Float64Array, y: Float64Array, closed: boolean, z0: number, z1: number): number {
    if (this.hasRoom(wayLength(x, y), z0 - z1)) {
      if (!closed) {
        sinkAlong(w, x, y, z0, z1, this.slope);
        return 0;
      }
      overFloor(w, x[0], y[0], z0);
      if (w.z > z0) w.to(x[0], y[0], z0);
      return rampDown(w, loopOf(x, y), z0, z1, this.slope);
    }
    return this.straight(w, x[0], y[0], z0, z1) ? 0 : -1;
  }

  /** Whether a way so long is enough to sink by `drop` along it, to and fro, mm. */
  hasRoom(length: number, drop: number): boolean {
    const least = leastRamp({ centre: this.centre, radius: this.radius });
    return length >= least && turnsAlong(length, drop, this.slope) <= MOST_TURNS;
  }

  /** Straight down where there is no room to ramp. @returns false where the place is to be left out */
  straight(w: ToolpathWriter, x: number, y: number, z0: number, z1: number): boolean {
    (this.centre ? this.plunged : this.leftOut).push({ x, y });
    if (!this.centre) return false;
    overFloor(w, x, y, z0);
    w.plunge(z1);
    return true;
  }

  /** What is to be said of the ways in. */
  notes(name: string): Note[] {
    const out: Note[] = [];
    const places = (n: number): string => (n === 1 ? "one place" : `${n} places`);
    const size = `${formatLength(2 * this.radius)} mm`;
    if (this.plunged.length > 0)
      out.push({
        code: "plunges-into-stock",
        severity: "warning",
        message:
          `${name}: in ${places(this.plunged.length)} there is no room for a helix or ramp, and the ${size} cutter ` +
          "goes straight down into solid stock. A smaller cutter has room.",
        at: this.plunged[0],
      });
    if (this.leftOut.length > 0)
      out.push({
        code: "no-way-in",
        severity: "stop",
        message:
          `${name}: in ${places(this.leftOut.length)} there is no room for a helix or ramp, and the ${size} cutter ` +
          "does not cut at its centre. Use a smaller cutter or one that cuts at its centre.",
        at: this.leftOut[0],
        hangsOnCutter: true,
      });
    return out;
  }
}
