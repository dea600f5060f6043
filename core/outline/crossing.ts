import Flatbush from "flatbush";
import { orient2d } from "robust-predicates";
import { type Rings, ringCount } from "../geometry/rings.ts";

/** Rings whose edges cross or touch an edge that is not their neighbour, in the same ring or another; ascending. */
export function crossingContours(r: Rings): number[] {
  const total = r.xy.length / 2;
  if (total === 0) return [];
  const { xy } = r;
  const ringOf = new Int32Array(total);
  const next = new Int32Array(total);
  for (let k = 0; k < ringCount(r); k++)
    for (let i = r.starts[k]; i < r.starts[k + 1]; i++) {
      ringOf[i] = k;
      next[i] = i + 1 < r.starts[k + 1] ? i + 1 : r.starts[k];
    }
  const index = new Flatbush(total);
  for (let i = 0; i < total; i++) {
    const j = next[i];
    index.add(Math.min(xy[2 * i], xy[2 * j]), Math.min(xy[2 * i + 1], xy[2 * j + 1]), Math.max(xy[2 * i], xy[2 * j]), Math.max(xy[2 * i + 1], xy[2 * j + 1]));
  }
  index.finish();
  const crossed = new Set<number>();
  for (let i = 0; i < total; i++) {
    const j = next[i];
    const x0 = Math.min(xy[2 * i], xy[2 * j]);
    const x1 = Math.max(xy[2 * i], xy[2 * j]);
    const y0 = Math.min(xy[2 * i + 1], xy[2 * j + 1]);
    const y1 = Math.max(xy[2 * i + 1], xy[2 * j + 1]);
    index.search(x0, y0, x1, y1, (o) => {
      if (o > i && o !== j && next[o] !== i && meet(xy, i, j, o, next[o])) {
        crossed.add(ringOf[i]);
        crossed.add(ringOf[o]);
      }
      return false;
    });
  }
  return [...crossed].sort((a, b) => a - b);
}

/** Whether closed segments a–b and c–d share a point; exact signs by Shewchuk's predicates. */
function meet(xy: Float64Array, a: number, b: number, c: number, d: number): boolean {
  const side = (p: number, q: number, s: number) => Math.sign(orient2d(xy[2 * p], xy[2 * p + 1], xy[2 * q], xy[2 * q + 1], xy[2 * s], xy[2 * s + 1]));
  const c1 = side(a, b, c);
  const d1 = side(a, b, d);
  if (c1 * d1 > 0) return false;
  const a1 = side(c, d, a);
  const b1 = side(c, d, b);
  if (a1 * b1 > 0) return false;
  // All four collinear: boxes overlap already, or the index would not have brought the pair.
  return true;
}
