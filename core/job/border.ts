import type { Clearance } from "../geometry/clearance/clearance.ts";
import { grown, ringsOf } from "../geometry/morph.ts";
import { boundsOf, ringCount, type Rings } from "../geometry/rings.ts";
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

/** Outer region minus an inner one that lies wholly inside it: the inner rings turned round. */
function minus(outer: Rings, inner: Rings): Rings {
  const loops: number[][] = [];
  for (let k = 0; k < ringCount(outer); k++) loops.push([...outer.xy.subarray(2 * outer.starts[k], 2 * outer.starts[k + 1])]);
  for (let k = 0; k < ringCount(inner); k++) {
    const loop: number[] = [];
    for (let i = inner.starts[k + 1] - 1; i >= inner.starts[k]; i--) loop.push(inner.xy[2 * i], inner.xy[2 * i + 1]);
    loops.push(loop);
  }
  return ringsOf(loops);
}
