import { type Clearance, inset } from "../geometry/clearance/clearance.ts";
import { nesting } from "../geometry/nesting.ts";
import { boundsOf, complement, ringArea, ringCount, type Rings } from "../geometry/rings.ts";
import { rectangle } from "../geometry/shape.ts";
import type { Settings } from "../settings/fields.ts";
import type { StockSettings } from "./document.ts";

/**
 * The region a carve works in: the ink itself, or a border minus the ink.
 * @returns null where the ink reaches beyond the border
 */
export function carveRegion(ink: Rings, s: Settings, stock: StockSettings, clearance: (r: Rings) => Clearance): Rings | null {
  if (s.side !== "stands") return ink;
  let border: Rings;
  if (s.border === "grow") border = grown(ink, s.borderWidth as number, clearance);
  else {
    const w = s.border === "frame" ? (s.borderWidth as number) : 0;
    border = rectangle(w, w, stock.width - w, stock.height - w);
    const b = boundsOf(ink.xy);
    if (b.minX <= w || b.minY <= w || b.maxX >= stock.width - w || b.maxY >= stock.height - w) return null;
  }
  return minus(border, ink);
}

/** The ink grown by a distance: the outside world drawn back from it. */
export function grown(ink: Rings, by: number, clearance: (r: Rings) => Clearance): Rings {
  const n = ringCount(ink);
  const { rings, follows } = inset(clearance(complement(ink, 3 * by + 1)), by);
  const loops: number[][] = [];
  for (let k = 0; k < ringCount(rings); k++) {
    if (follows[k] >= n) continue;
    const loop: number[] = [];
    for (let i = rings.starts[k + 1] - 1; i >= rings.starts[k]; i--) loop.push(rings.xy[2 * i], rings.xy[2 * i + 1]);
    loops.push(loop);
  }
  return pack(loops);
}

/** Outer region minus an inner one that lies wholly inside it: the inner rings turned round. */
function minus(outer: Rings, inner: Rings): Rings {
  const loops: number[][] = [];
  for (let k = 0; k < ringCount(outer); k++) loops.push([...outer.xy.subarray(2 * outer.starts[k], 2 * outer.starts[k + 1])]);
  for (let k = 0; k < ringCount(inner); k++) {
    const loop: number[] = [];
    for (let i = inner.starts[k + 1] - 1; i >= inner.starts[k]; i--) loop.push(inner.xy[2 * i], inner.xy[2 * i + 1]);
    loops.push(loop);
  }
  return pack(loops);
}

function pack(loops: readonly number[][]): Rings {
  const starts = new Int32Array(loops.length + 1);
  loops.forEach((l, k) => (starts[k + 1] = starts[k] + l.length / 2));
  const xy = new Float64Array(2 * starts[loops.length]);
  loops.forEach((l, k) => xy.set(l, 2 * starts[k]));
  const r: Rings = { xy, starts, parent: new Int32Array(loops.length).fill(-1) };
  r.parent = nesting(r);
  for (let k = 0; k < loops.length; k++) if (ringArea(r, k) > 0) r.parent[k] = -1;
  return r;
}
