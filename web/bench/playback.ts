import type { DrawnCut } from "../compute/messages.ts";

/** Seconds of all cuts that are on, tool changes left out: what the playhead runs over. */
export function cuttingSeconds(cuts: readonly DrawnCut[]): number {
  let total = 0;
  for (const c of cuts) if (c.on) total += c.seconds;
  return total;
}

/** Where the cutter is after so many seconds of cutting: the cut, the move and the place on it. */
export function positionAt(
  cuts: readonly DrawnCut[],
  seconds: number,
): { cut: number; move: number; x: number; y: number; z: number } | null {
  let left = seconds;
  for (let k = 0; k < cuts.length; k++) {
    const c = cuts[k];
    if (!c.on || c.toolpath.kind.length === 0) continue;
    if (left > c.seconds && cuts.slice(k + 1).some((d) => d.on && d.toolpath.kind.length > 0)) {
      left -= c.seconds;
      continue;
    }
    const t = c.toolpath;
    const n = t.kind.length;
    for (let i = 0; i < n; i++) {
      const s = c.moveSeconds[i];
      if (left <= s || i === n - 1) {
        const f = s > 0 ? Math.min(1, left / s) : 1;
        const p = Math.max(0, i - 1);
        return {
          cut: k,
          move: i + (f >= 1 ? 1 : 0),
          x: t.x[p] + f * (t.x[i] - t.x[p]),
          y: t.y[p] + f * (t.y[i] - t.y[p]),
          z: t.z[p] + f * (t.z[i] - t.z[p]),
        };
      }
      left -= s;
    }
  }
  return null;
}
