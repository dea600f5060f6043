import type { Leeway } from "../geometry/leeway.ts";
import type { Trail } from "../geometry/trail.ts";
import { picked } from "../growing.ts";
import { hypot } from "../hypot.ts";

/**
 * How far along a ring one looks again for where it may be left out, at least, and how exactly the end of such a
 * stretch is found, mm.
 */
const LOOK = 0.2;
const END = 0.01;

/** Whether a place is left out. */
export type Skip = (x: number, y: number) => Leeway;

/** Places along a path, one after another: it is asked again only where the last answer does not reach. */
export class Looked {
  private x = NaN;
  private y = NaN;
  private leeway: Leeway = 0;
  constructor(private readonly skip: Skip) {}

  isSkipped(x: number, y: number): boolean {
    if (!this.isKnown(x, y)) {
      [this.x, this.y] = [x, y];
      this.leeway = this.skip(x, y);
    }
    return this.leeway > 0;
  }

  /** Whether the last answer holds here too. */
  isKnown(x: number, y: number): boolean {
    const [dx, dy] = [x - this.x, y - this.y];
    // Before the first place x is NaN, and NaN compares false.
    return dx * dx + dy * dy < this.leeway * this.leeway;
  }

  /** How much farther than a place for which the last answer holds it goes on to hold, mm. */
  beyond(x: number, y: number): number {
    return Math.abs(this.leeway) - hypot(x - this.x, y - this.y);
  }
}

/** Places round a ring, and whether each is left out; of many left out in a row only the first and the last. */
class Places {
  readonly x: number[] = [];
  readonly y: number[] = [];
  readonly out: boolean[] = [];

  add(x: number, y: number, out: boolean): void {
    const n = this.x.length;
    if (out && n > 1 && this.out[n - 1] && this.out[n - 2]) {
      this.x[n - 1] = x;
      this.y[n - 1] = y;
      return;
    }
    this.x.push(x);
    this.y.push(y);
    this.out.push(out);
  }
}

/** The places of a ring between which nothing changes, but for what is found by halving. */
function placesRound(xy: Float64Array, start: number, end: number, skip: Skip): Places {
  const places = new Places();
  const looked = new Looked(skip);
  for (let i = start; i < end; i++) {
    const j = i + 1 < end ? i + 1 : start;
    const [x0, y0, x1, y1] = [xy[2 * i], xy[2 * i + 1], xy[2 * j], xy[2 * j + 1]];
    places.add(x0, y0, looked.isSkipped(x0, y0));
    // The answer holds within a circle, hence all along between two places in it.
    if (looked.isKnown(x1, y1)) continue;
    const length = hypot(x1 - x0, y1 - y0);
    let at = Math.max(LOOK, looked.beyond(x0, y0));
    while (at < length) {
      const [x, y] = [x0 + ((x1 - x0) * at) / length, y0 + ((y1 - y0) * at) / length];
      places.add(x, y, looked.isSkipped(x, y));
      at += Math.max(LOOK, looked.beyond(x, y));
    }
  }
  return places;
}

/**
 * The stretches of a closed ring that are not left out, each with a little more at either end; the whole loop where it
 * never is.
 */
export function openRuns(
  xy: Float64Array,
  start: number,
  end: number,
  skip: Skip | null,
): { x: Float64Array; y: Float64Array }[] {
  const { x: px, y: py, out } = placesRound(xy, start, end, skip ?? (() => -Infinity));
  const n = px.length;
  const first = Math.max(0, out.indexOf(true));
  const runs: { x: Float64Array; y: Float64Array }[] = [];
  let run: number[] = [];
  /** Draws a run's end in the skipped part up to where that begins. */
  const drawn = (x: Float64Array, y: Float64Array, end: number, inside: number) => {
    if (!(skip!(x[end], y[end]) > 0)) return;
    const [dx, dy] = [x[inside] - x[end], y[inside] - y[end]];
    let [outside, open] = [0, 1];
    while ((open - outside) * hypot(dx, dy) > END) {
      const mid = (outside + open) / 2;
      if (skip!(x[end] + mid * dx, y[end] + mid * dy) > 0) outside = mid;
      else open = mid;
    }
    [x[end], y[end]] = [x[end] + outside * dx, y[end] + outside * dy];
  };
  const close = () => {
    if (run.length > 1) {
      const [x, y] = [picked(px, run), picked(py, run)];
      if (skip && run.length > 2) {
        drawn(x, y, 0, 1);
        drawn(x, y, run.length - 1, run.length - 2);
      }
      runs.push({ x, y });
    }
    run = [];
  };
  for (let q = 0; q <= n; q++) {
    const i = (first + q) % n;
    if (out[i]) {
      if (run.length > 0) run.push(i);
      close();
      // The stretch that leaves the skipped part begins inside it.
      if (!out[(i + 1) % n]) run.push(i);
    } else run.push(i);
  }
  close();
  return runs;
}

/** The parts of a trail deeper than −z0 (z below `above`), held no lower than `floor`; both negative or zero. */
export function between(t: Trail, above: number, floor: number): Trail[] {
  const out: Trail[] = [];
  let px: number[] = [];
  let py: number[] = [];
  let pz: number[] = [];
  const end = () => {
    if (px.length > 1) out.push({ x: Float64Array.from(px), y: Float64Array.from(py), z: Float64Array.from(pz) });
    px = [];
    py = [];
    pz = [];
  };
  const push = (x: number, y: number, z: number) => {
    px.push(x);
    py.push(y);
    pz.push(Math.max(z, floor));
  };
  for (let i = 0; i < t.x.length; i++) {
    if (i > 0) {
      // Break the piece where it passes either level, so that the held line bends at the right place.
      const cuts: number[] = [];
      for (const level of [above, floor]) {
        const f = (level - t.z[i - 1]) / (t.z[i] - t.z[i - 1]);
        if (f > 1e-9 && f < 1 - 1e-9) cuts.push(f);
      }
      cuts.sort((a, b) => a - b);
      for (const f of cuts) {
        const z = t.z[i - 1] + f * (t.z[i] - t.z[i - 1]);
        push(t.x[i - 1] + f * (t.x[i] - t.x[i - 1]), t.y[i - 1] + f * (t.y[i] - t.y[i - 1]), z);
        if (Math.abs(z - above) < 1e-9 && t.z[i] > above) end();
      }
    }
    if (t.z[i] <= above + 1e-12) push(t.x[i], t.y[i], t.z[i]);
    else end();
  }
  end();
  return out;
}
