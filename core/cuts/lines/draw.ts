import { thin } from "../../geometry/thin.ts";
import { nearestOrder } from "../../toolpath/order.ts";
import type { ToolpathWriter } from "../../toolpath/toolpath.ts";
import { bareWidth, depthFor, type Groove, leastWidth, shareOfDots, shareOfEach, widthOfDots } from "./grooves.ts";
import { type Box, dots, isInside, type Way } from "./ways.ts";
import { hypot } from "../../hypot.ts";

/** How lines are drawn. */
export interface LineStyle {
  shape: "lines" | "waves" | "rings" | "spiral" | "dots";
  spacing: number;
  angle: number;
  crossed: boolean;
}

/** Bare widths under this share of the spacing are not cut: nobody sees them, and paint would tear. */
const UNSEEN = 0.01;
/** Gaps in a groove shorter than this are passed just above the stock and not lifted over, mm. */
const PASSED = 3;
/** … that far above it, mm. */
const OVER = 0.05;
/** How far a groove's bare width may be off, as a share of the spacing, and its course, mm. */
const WIDTH_WITHIN = 0.0015;

/** What draws a set of lines. */
export interface Drawing {
  ways: readonly Way[];
  /** the share that is to be bared */
  wanted(x: number, y: number): number;
  progress(share: number): void;
}

/** A stretch of a line with its tip heights: one groove, or several with short gaps between, cut without lifting. */
class Stretch {
  readonly x: number[] = [];
  readonly y: number[] = [];
  readonly z: number[] = [];
  /** how far it has gone on since something was last cut, mm */
  gap = 0;
  private cut = 0;

  add(x: number, y: number, z: number): void {
    const last = this.x.length - 1;
    this.gap = z < 0 || last < 0 ? 0 : this.gap + hypot(x - this.x[last], y - this.y[last]);
    this.x.push(x);
    this.y.push(y);
    this.z.push(z);
    if (z < 0) this.cut = this.x.length;
  }
  /** Without what was passed after the last groove. */
  ended(): this {
    for (const list of [this.x, this.y, this.z]) list.length = this.cut;
    return this;
  }
}

export function drawLines(w: ToolpathWriter, box: Box, g: Groove, s: LineStyle, d: Drawing): void {
  const each = s.shape === "lines" && s.crossed ? shareOfEach : (v: number) => v;
  const stretches = d.ways.flatMap((way) => stretchesOf(way, box, g, s, (x, y) => each(d.wanted(x, y))));
  const ends = stretches.map(({ x, y }) => ({ x0: x[0], y0: y[0], x1: x[x.length - 1], y1: y[y.length - 1] }));
  nearestOrder(ends).forEach(({ index, reverse }, k) => {
    const { x, y, z } = stretches[index];
    const order = thin(x, y, z, 0, x.length - 1, WIDTH_WITHIN * s.spacing, (at) => openedBy(g, at));
    if (reverse) order.reverse();
    w.above(x[order[0]], y[order[0]]);
    w.plunge(z[order[0]]);
    for (const i of order.slice(1)) w.to(x[i], y[i], z[i]);
    if ((k & 63) === 0) d.progress(k / stretches.length);
  });
}

/** What a tip at z opens at the paint's underside; over that, as much less than nothing: gaps stay as they are. */
const openedBy = (g: Groove, z: number): number => bareWidth(g, -z) / 2 - Math.max(0, z + g.coat);

/** The grooves along a line: cut where something is wanted and it lies in the box. */
function stretchesOf(way: Way, box: Box, g: Groove, s: LineStyle, wanted: (x: number, y: number) => number): Stretch[] {
  const out: Stretch[] = [];
  let open: Stretch | undefined;
  for (let i = 0; i < way.x.length; i++) {
    const [x, y] = [way.x[i], way.y[i]];
    if (!isInside(box, x, y)) {
      open = undefined;
      continue;
    }
    const width = acrossStrip(way, i, wanted) * way.apart[i];
    if (width > UNSEEN * s.spacing) {
      if (!open) out.push((open = new Stretch()));
      open.add(x, y, -depthFor(g, Math.max(leastWidth(g), width)));
    } else {
      open?.add(x, y, OVER);
      if (open && open.gap > PASSED) open = undefined;
    }
  }
  // A single place is no line.
  return out.map((stretch) => stretch.ended()).filter(({ x }) => x.length > 1);
}

/** The mean share wanted over the strip that a line stands for, at its place i. */
function acrossStrip(way: Way, i: number, wanted: (x: number, y: number) => number): number {
  const [a, b] = [Math.max(0, i - 1), Math.min(way.x.length - 1, i + 1)];
  const [tx, ty] = [way.x[b] - way.x[a], way.y[b] - way.y[a]];
  const aside = way.apart[i] / 3 / (hypot(tx, ty) || 1);
  const at = (k: number) => wanted(way.x[i] - k * aside * ty, way.y[i] + k * aside * tx);
  return (at(-1) + at(0) + at(1)) / 3;
}

/** Dots no farther apart than so many spacings are hopped between, this far above the paint, mm. */
const HOPS = 3;
const OVER_DOTS = 0.5;

export function drawDots(
  w: ToolpathWriter,
  box: Box,
  g: Groove,
  s: LineStyle,
  wanted: (x: number, y: number) => number,
): void {
  const least = Math.max(shareOfDots(leastWidth(g), s.spacing), UNSEEN);
  // What a dot bares too much or too little the next makes good: so tones below the smallest dot are drawn by fewer.
  let owed = 0;
  for (const { x, y } of dots(box, s.angle, s.spacing)) {
    const share = wanted(x, y) + owed;
    const drawn = share < least / 2 ? 0 : Math.max(least, share);
    owed = share - drawn;
    if (drawn === 0) continue;
    if (w.count > 0 && hypot(x - w.x, y - w.y) < HOPS * s.spacing) {
      w.rapidTo(OVER_DOTS);
      w.to(x, y, OVER_DOTS);
    } else w.above(x, y);
    w.plunge(-depthFor(g, widthOfDots(drawn, s.spacing)));
  }
}
