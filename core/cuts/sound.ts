import { crossingPlaces } from "../outline/crossing.ts";
import { ringCount, type Rings } from "../geometry/rings.ts";
import { formatLength } from "../units.ts";
import type { Note } from "./kind.ts";

/**
 * Why an outline cannot be cut: it crosses or touches itself, or lies on itself twice, so that no side of it is inside. Outlines
 * that were traced never do; others may come from anywhere. Null where it is sound.
 */
export function unsound(ink: Rings, name: string): Note | null {
  const [first, ...more] = crossingPlaces(distinct(ink), true);
  if (!first) return null;
  const places = more.length > 1 ? `, and in ${Math.ceil(more.length / 2)} more places` : "";
  return { code: "outline-crosses", severity: "stop", message: `${name}: its outline crosses or touches itself near x ${formatLength(first.x, "mm", 1)}, y ${formatLength(first.y, "mm", 1)} mm${places}: there is no inside to cut. Take out the double or crossing line there.`, at: { x: first.x, y: first.y } };
}

/** Rings without a point on top of the one before; ones that are less than a triangle go. */
function distinct(r: Rings): Rings {
  const xy: number[] = [];
  const starts = [0];
  for (let k = 0; k < ringCount(r); k++) {
    const from = xy.length;
    for (let i = r.starts[k]; i < r.starts[k + 1]; i++) {
      const [x, y] = [r.xy[2 * i], r.xy[2 * i + 1]];
      if (xy.length === from || x !== xy[xy.length - 2] || y !== xy[xy.length - 1]) xy.push(x, y);
    }
    while (xy.length > from + 2 && xy[from] === xy[xy.length - 2] && xy[from + 1] === xy[xy.length - 1]) xy.length -= 2;
    if (xy.length < from + 6) xy.length = from;
    else starts.push(xy.length / 2);
  }
  return { xy: Float64Array.from(xy), starts: Int32Array.from(starts), parent: new Int32Array(starts.length - 1).fill(-1) };
}
