import type { Placement } from "../../outline/outline.ts";

/** Points of the unfitted edge that are kept for measuring. */
const EDGE_POINTS = 4000;

/** An even spread of the points of some runs, brought onto the stock; `flip` is −1 where y points down. */
export function spread(
  xy: Float64Array,
  starts: Int32Array,
  place: Placement,
  which: (k: number) => boolean,
  flip = -1,
): Float64Array {
  const step = Math.max(1, Math.floor(xy.length / 2 / EDGE_POINTS));
  const out: number[] = [];
  for (let k = 0; k + 1 < starts.length; k++) {
    if (!which(k)) continue;
    for (let i = starts[k]; i < starts[k + 1]; i += step)
      out.push(place.x0 + place.scale * xy[2 * i], place.y1 + flip * place.scale * xy[2 * i + 1]);
  }
  return Float64Array.from(out);
}
