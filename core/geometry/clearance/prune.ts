import type { Axis } from "./graph.ts";
import { hypot } from "../../hypot.ts";

/**
 * Which edges of the axis matter: branches that only reach into corners so blunt that leaving them out loses less than
 * `loss` mm are cut off, from their tips inwards.
 *
 * A disc at the branch's root reaches d beyond it; a disc at its tip reaches the branch's length plus the tip's own d.
 * The difference is what would be lost, and it adds up as branches shorten.
 * @returns 1 for every edge to keep
 */
export function pruneAxis(axis: Axis, loss: number): Uint8Array {
  const n = axis.x.length;
  const m = axis.a.length;
  const keep = new Uint8Array(m).fill(1);
  const degree = new Int32Array(n);
  for (let e = 0; e < m; e++) {
    degree[axis.a[e]]++;
    degree[axis.b[e]]++;
  }
  const first = new Int32Array(n + 1);
  for (let i = 0; i < n; i++) first[i + 1] = first[i] + degree[i];
  const at = first.slice(0, n);
  const incident = new Int32Array(2 * m);
  for (let e = 0; e < m; e++) {
    incident[at[axis.a[e]]++] = e;
    incident[at[axis.b[e]]++] = e;
  }
  const reach = axis.d.slice();
  const tips: number[] = [];
  for (let i = 0; i < n; i++) if (degree[i] === 1) tips.push(i);
  for (let q = 0; q < tips.length; q++) {
    const tip = tips[q];
    if (degree[tip] !== 1) continue;
    let e = -1;
    for (let k = first[tip]; k < first[tip + 1]; k++) if (keep[incident[k]]) e = incident[k];
    if (e < 0) continue;
    const root = axis.a[e] === tip ? axis.b[e] : axis.a[e];
    const far = hypot(axis.x[root] - axis.x[tip], axis.y[root] - axis.y[tip]) + reach[tip];
    // The last edge of a tree stays, as short as it is: it is where a disc is cut.
    if (far - axis.d[root] > loss || degree[root] === 1) continue;
    keep[e] = 0;
    degree[tip] = 0;
    if (far > reach[root]) reach[root] = far;
    if (--degree[root] === 1) tips.push(root);
  }
  return keep;
}
