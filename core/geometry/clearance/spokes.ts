import Flatbush from "flatbush";
import { hypot } from "../../hypot.ts";
import { type Boundary, type Foot, newFoot, walkToFoot } from "./boundary.ts";
import { FEET } from "./feet.ts";
import type { Axis } from "./graph.ts";

/** All round, radians. */
export const TURN = 2 * Math.PI;
/** Feet that are one may seem to stand so much the other way round. */
const ROUNDING = 1e-3;

/** A straight way along the axis, and the boundary's edges that lie on its left and on its right. */
export interface Way {
  left: number;
  right: number;
  x0: number;
  y0: number;
  x1: number;
  y1: number;
}

/**
 * Between a way along the axis and its feet on both sides: the area, mm², how far it is from foot to foot on both
 * sides together, mm, and at the way's beginning and its end the angle between the two feet on the side that it
 * leads to.
 */
export interface Beside {
  area: number;
  edge: number;
  first: number;
  last: number;
}

/**
 * Straight ways from places on the axis to their feet on the boundary, or on the curve that lies so far inside it, and
 * what lies between them.
 */
export class Spokes {
  private readonly from = newFoot();
  private readonly to = newFoot();
  private readonly back = newFoot();
  private readonly on = newFoot();
  /** @param inside how far inside the boundary that curve lies, mm */
  constructor(
    private readonly boundary: Boundary,
    private readonly inside = 0,
  ) {}

  beside({ left, right, x0, y0, x1, y1 }: Way): Beside {
    const { boundary, from, to, back, on } = this;
    walkToFoot(boundary, left, x0, y0, from);
    walkToFoot(boundary, left, x1, y1, to);
    walkToFoot(boundary, right, x1, y1, back);
    walkToFoot(boundary, right, x0, y0, on);
    return this.between(x0, y0, x1, y1);
  }

  /** The same of a whole edge of the axis, whose feet are known: the `of`-th of them. */
  besideEdge({ x, y, a, b }: Axis, e: number, feet: Float64Array, of: number): Beside {
    const { from, to, back, on } = this;
    const first = FEET * of;
    [from.x, from.y, to.x, to.y] = [feet[first], feet[first + 1], feet[first + 2], feet[first + 3]];
    [on.x, on.y, back.x, back.y] = [feet[first + 4], feet[first + 5], feet[first + 6], feet[first + 7]];
    return this.between(x[a[e]], y[a[e]], x[b[e]], y[b[e]]);
  }

  private between(x0: number, y0: number, x1: number, y1: number): Beside {
    const { from, to, back, on, inside } = this;
    const [first, last] = [turnOf(x0, y0, on, from), turnOf(x1, y1, to, back)];
    shorten(from, x0, y0, inside);
    shorten(on, x0, y0, inside);
    shorten(to, x1, y1, inside);
    shorten(back, x1, y1, inside);
    const area = quadrangle(x0, y0, x1, y1, from, to) + quadrangle(x1, y1, x0, y0, back, on);
    return { area, edge: hypot(to.x - from.x, to.y - from.y) + hypot(on.x - back.x, on.y - back.y), first, last };
  }

  /** What of that no disc covers, looked at along spokes so far apart, mm². */
  uncovered({ left, right, x0, y0, x1, y1 }: Way, discs: Discs, apart: number): number {
    const steps = Math.max(1, Math.ceil(hypot(x1 - x0, y1 - y0) / apart));
    const at = (k: number): [number, number] => [x0 + ((x1 - x0) * k) / steps, y0 + ((y1 - y0) * k) / steps];
    let area = 0;
    for (let k = 0; k < steps; k++) {
      const [p, q, m] = [at(k), at(k + 1), at(k + 0.5)];
      for (const [edge, [px, py], [qx, qy]] of [
        [left, p, q],
        [right, q, p],
      ] as const) {
        const whole = this.onLeft(edge, px, py, qx, qy);
        this.foot(edge, ...m);
        const [ux, uy] = [this.to.x - m[0], this.to.y - m[1]];
        const long = hypot(ux, uy);
        // How wide it is at the axis; what is left of the whole lies at the foot.
        const wide = long > 0 ? Math.abs((qx - px) * uy - (qy - py) * ux) / long : 0;
        const atAxis = Math.min(1, (wide * long) / (2 * whole || 1));
        area += whole * discs.open(...m, this.to.x, this.to.y, atAxis);
      }
    }
    return area;
  }

  /** A place's foot near an edge; good until the next is asked for. */
  foot(edge: number, x: number, y: number): Readonly<Foot> {
    walkToFoot(this.boundary, edge, x, y, this.to);
    shorten(this.to, x, y, this.inside);
    return this.to;
  }

  private onLeft(edge: number, x0: number, y0: number, x1: number, y1: number): number {
    const { from, to, boundary } = this;
    walkToFoot(boundary, edge, x0, y0, from);
    walkToFoot(boundary, edge, x1, y1, to);
    shorten(from, x0, y0, this.inside);
    shorten(to, x1, y1, this.inside);
    return quadrangle(x0, y0, x1, y1, from, to);
  }
}

/** Moves a foot by so much towards the place whose foot it is. */
function shorten(foot: Foot, x: number, y: number, by: number): void {
  if (by === 0) return;
  const [dx, dy] = [x - foot.x, y - foot.y];
  const f = Math.min(1, by / hypot(dx, dy));
  foot.x += f * dx;
  foot.y += f * dy;
}

/** The area of the quadrangle from two places on to the feet of the second and of the first, by its diagonals. */
const quadrangle = (x0: number, y0: number, x1: number, y1: number, first: Foot, second: Foot): number =>
  ((second.x - x0) * (first.y - y1) - (second.y - y0) * (first.x - x1)) / 2;

/** How far it is from one of a place's feet round to another, anticlockwise. */
function turnOf(x: number, y: number, one: Foot, other: Foot): number {
  const [ax, ay, bx, by] = [one.x - x, one.y - y, other.x - x, other.y - y];
  const turn = Math.atan2(ax * by - ay * bx, ax * bx + ay * by);
  if (turn >= 0) return turn;
  return turn > -ROUNDING ? 0 : turn + TURN;
}

/** Discs of one radius. */
export class Discs {
  private readonly index: Flatbush;
  constructor(
    private readonly centres: readonly { x0: number; y0: number }[],
    private readonly radius: number,
  ) {
    this.index = new Flatbush(centres.length);
    for (const { x0, y0 } of centres) this.index.add(x0 - radius, y0 - radius, x0 + radius, y0 + radius);
    this.index.finish();
  }

  /** Whether any of them may cover something that is no farther from a way than `reach`. */
  areNear({ x0, y0, x1, y1 }: Way, reach: number): boolean {
    const [left, right] = [Math.min(x0, x1) - reach, Math.max(x0, x1) + reach];
    const [low, high] = [Math.min(y0, y1) - reach, Math.max(y0, y1) + reach];
    return this.index.search(left, low, right, high).length > 0;
  }

  /**
   * The share of a strip along a straight line that no disc covers.
   * @param atStart its width at the beginning, as a share of the width there and at the end together
   */
  open(x0: number, y0: number, x1: number, y1: number, atStart: number): number {
    const [dx, dy] = [x1 - x0, y1 - y0];
    const square = dx * dx + dy * dy;
    const covered: [number, number][] = [];
    const near = this.index.search(Math.min(x0, x1), Math.min(y0, y1), Math.max(x0, x1), Math.max(y0, y1));
    for (const i of near) {
      const [cx, cy] = [this.centres[i].x0 - x0, this.centres[i].y0 - y0];
      // Where the line passes the middle of the disc, and how far before and after that it is inside, in its lengths.
      const middle = square > 0 ? (cx * dx + cy * dy) / square : 0;
      const off = (cx - middle * dx) ** 2 + (cy - middle * dy) ** 2;
      if (off >= this.radius ** 2) continue;
      const half = square > 0 ? Math.sqrt((this.radius ** 2 - off) / square) : Infinity;
      covered.push([middle - half, middle + half]);
    }
    covered.sort((p, q) => p[0] - q[0]);
    // From the beginning up to f, as a share of the whole.
    const upTo = (f: number) => 2 * atStart * f + (1 - 2 * atStart) * f * f;
    let open = 0;
    let at = 0;
    for (const [low, high] of covered) {
      if (low >= 1) break;
      if (low > at) open += upTo(low) - upTo(at);
      at = Math.max(at, Math.min(1, high));
    }
    return open + upTo(1) - upTo(at);
  }
}
