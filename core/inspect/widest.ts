import type { CutResult } from "../job/plan.ts";

/** Where a cut goes deepest: the end of its deepest move, mm. */
export function widestPlace(c: CutResult): { x: number; y: number } | undefined {
  const t = c.toolpath;
  let best = -1;
  for (let i = 0; i < t.kind.length; i++) if (best < 0 || t.z[i] < t.z[best]) best = i;
  return best < 0 ? undefined : { x: t.x[best], y: t.y[best] };
}
