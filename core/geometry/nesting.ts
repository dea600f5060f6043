import Flatbush from "flatbush";
import { boundsOf, insideRing, ringArea, ringCount, type Rings } from "./rings.ts";

/**
 * For every ring the smallest ring around it, or −1. Rings must not cross.
 * Cost: n log n box look-ups, and a point-in-polygon test for each candidate around.
 */
export function nesting(r: Rings): Int32Array {
  const n = ringCount(r);
  const parent = new Int32Array(n).fill(-1);
  if (n < 2) return parent;
  const index = new Flatbush(n);
  const area = new Float64Array(n);
  for (let k = 0; k < n; k++) {
    const b = boundsOf(r.xy, r.starts[k], r.starts[k + 1]);
    index.add(b.minX, b.minY, b.maxX, b.maxY);
    area[k] = Math.abs(ringArea(r, k));
  }
  index.finish();
  for (let k = 0; k < n; k++) {
    const x = r.xy[2 * r.starts[k]];
    const y = r.xy[2 * r.starts[k] + 1];
    const around = index.search(x, y, x, y).filter((j) => j !== k && area[j] > area[k]);
    around.sort((i, j) => area[i] - area[j]);
    parent[k] = around.find((j) => insideRing(r, j, x, y)) ?? -1;
  }
  return parent;
}

/** Rings that bound one connected piece of the region together: each outer ring with the holes directly in it. */
export function components(r: Rings): number[][] {
  const n = ringCount(r);
  const hole = Array.from({ length: n }, (_, k) => ringArea(r, k) < 0);
  const known = r.parent.length === n && r.parent.every((p, k) => p >= 0 === hole[k] || (p >= 0 && !hole[k]));
  const parent = known ? r.parent : nesting(r);
  const groups = new Map<number, number[]>();
  for (let k = 0; k < n; k++) {
    const root = hole[k] ? parent[k] : k;
    const g = groups.get(root);
    if (g) g.push(k);
    else groups.set(root, [k]);
  }
  return [...groups.values()];
}
