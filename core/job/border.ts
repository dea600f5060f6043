import type { Clearance } from "../geometry/clearance/clearance.ts";
import { grown, ringsOf } from "../geometry/morph.ts";
import { boundsOf, insideRegion, ringCount, type Rings } from "../geometry/rings.ts";
import { rectangle } from "../geometry/shape.ts";
import { isSound } from "../geometry/sound.ts";
import type { Settings } from "../settings/fields.ts";
import type { StockSettings } from "./document.ts";

/**
 * The region a carve works in: the ink itself, or a border minus the ink.
 * @param shape the outline that is the border, where one was chosen for it
 * @returns null where the ink reaches beyond the border, or there is none
 */
export function carveRegion(
  ink: Rings,
  s: Settings,
  stock: StockSettings,
  clearance: (r: Rings) => Clearance,
  shape: Rings | null,
): Rings | null {
  if (s.side !== "stands") return ink;
  let border: Rings;
  if (s.border === "shape") {
    if (!shape || !holds(shape, ink)) return null;
    border = shape;
  } else if (s.border === "grow") border = grown(ink, s.borderWidth as number, clearance);
  else {
    const w = s.border === "frame" ? (s.borderWidth as number) : 0;
    border = rectangle(w, w, stock.width - w, stock.height - w);
    const b = boundsOf(ink.xy);
    if (b.minX <= w || b.minY <= w || b.maxX >= stock.width - w || b.maxY >= stock.height - w) return null;
  }
  return minus(border, ink);
}

/** Whether the inner region lies wholly inside the outer one, no edge of one touching the other's. */
function holds(outer: Rings, inner: Rings): boolean {
  for (let k = 0; k < ringCount(inner); k++)
    if (
      inner.starts[k + 1] > inner.starts[k] &&
      !insideRegion(outer, inner.xy[2 * inner.starts[k]], inner.xy[2 * inner.starts[k] + 1])
    )
      return false;
  const n = ringCount(outer);
  const both = {
    xy: Float64Array.from([...outer.xy, ...inner.xy]),
    starts: Int32Array.from([...outer.starts, ...inner.starts.slice(1).map((v) => v + outer.starts[n])]),
    parent: new Int32Array(n + ringCount(inner)),
  };
  return isSound(both);
}

/** Outer region minus an inner one that lies wholly inside it: the inner rings turned round. */
function minus(outer: Rings, inner: Rings): Rings {
  const loops: number[][] = [];
  for (let k = 0; k < ringCount(outer); k++)
    loops.push([...outer.xy.subarray(2 * outer.starts[k], 2 * outer.starts[k + 1])]);
  for (let k = 0; k < ringCount(inner); k++) {
    const loop: number[] = [];
    for (let i = inner.starts[k + 1] - 1; i >= inner.starts[k]; i--) loop.push(inner.xy[2 * i], inner.xy[2 * i + 1]);
    loops.push(loop);
  }
  return ringsOf(loops);
}
