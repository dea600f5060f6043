import type { Loop } from "../../toolpath/loops.ts";

/** A bridge of stock along a loop: its middle, as a distance from the loop's beginning, mm. */
export interface Tab {
  at: number;
}

/** Corners closer to a tab than this much of its length make a bad place for it. */
const CORNER_WINDOW = 0.75;

/**
 * Tabs evenly round a loop, each moved to the gentlest run within its share: bending is summed over the tab's length and
 * a little beyond, and the place where least of it falls is taken.
 */
export function placeTabs(l: Loop, count: number, length: number): Tab[] {
  const n = l.x.length - 1;
  const total = l.s[n];
  if (count < 1 || total < 2 * length) return [];
  count = Math.min(count, Math.floor(total / (2 * length)));
  // Bending at each vertex.
  const turn = new Float64Array(n);
  for (let i = 0; i < n; i++) {
    const p = (i - 1 + n) % n;
    const q = i + 1;
    const a = Math.atan2(l.y[i] - l.y[p], l.x[i] - l.x[p]);
    const b = Math.atan2(l.y[q] - l.y[i], l.x[q] - l.x[i]);
    let d = Math.abs(b - a);
    if (d > Math.PI) d = 2 * Math.PI - d;
    turn[i] = d;
  }
  const window = length * CORNER_WINDOW;
  const bend = (at: number): number => {
    let sum = 0;
    for (let i = 0; i < n; i++) {
      let d = Math.abs(l.s[i] - at);
      d = Math.min(d, total - d);
      if (d < window) sum += turn[i] * (1 - d / window / 2);
    }
    return sum;
  };
  const share = total / count;
  const tries = n > 4000 ? 9 : 25;
  const out: Tab[] = [];
  for (let k = 0; k < count; k++) {
    const middle = (k + 0.5) * share;
    let best = middle;
    let least = Infinity;
    for (let q = 0; q < tries; q++) {
      const off = (q / (tries - 1) - 0.5) * (share - length) * 0.8;
      const b = bend((middle + off + total) % total) + (1e-3 * Math.abs(off)) / share;
      if (b < least) {
        least = b;
        best = (middle + off + total) % total;
      }
    }
    out.push({ at: best });
  }
  return out;
}

/** Lowest z allowed at distance s along the loop: `top` over a tab, sloping down at 45° on either side of it. */
export function tabLimit(tabs: readonly Tab[], total: number, half: number, top: number, bottom: number, s: number): number {
  let limit = bottom;
  for (const t of tabs) {
    let d = Math.abs((s % total) - t.at);
    d = Math.min(d, total - d);
    limit = Math.max(limit, Math.min(top, top - (d - half)));
  }
  return limit;
}
