import type { Loop } from "../../toolpath/loops.ts";
import type { ToolpathWriter } from "../../toolpath/toolpath.ts";
import { LEAST_HELIX, overFloor, sinkAlong } from "../area/sink.ts";
import { type Lead, leadPoints, type LeadRules, SLACK } from "../contour/leads.ts";
import type { Tab } from "../contour/tabs.ts";
import type { CutContext } from "../kind.ts";
import { wayOver } from "./beside.ts";
import { pass, type PassShape } from "./pass.ts";

/** A contour ready to cut: where it begins, its tabs, its way in and its way out. */
export interface Ready {
  loop: Loop;
  tabs: Tab[];
  lead: Lead | null;
  /** as a lead: from where it ends back to the contour */
  out: Lead | null;
}

/** One contour in all its passes. */
export function passes(w: ToolpathWriter, r: Ready, depth: number, s: { stepdown: number }, shape: PassShape): void {
  const n = Math.max(1, Math.ceil(depth / s.stepdown - 1e-6));
  if (r.lead) {
    for (let k = 1; k <= n; k++) along(w, r, (-depth * (k - 1)) / n, (-depth * k) / n, shape);
    return;
  }
  w.above(r.loop.x[0], r.loop.y[0]);
  w.to(r.loop.x[0], r.loop.y[0], 0);
  let at = 0;
  for (let k = 1; k <= n; k++) at = pass(w, r.loop, at, (-depth * (k - 1)) / n, (-depth * k) / n, shape, r.tabs);
}

/**
 * Whether the cutter gets down along a contour: one that does not cut at its centre would leave a post in the middle of
 * a small round.
 */
export function hasWayIn({ loop, lead }: Ready, cutter: CutContext["cutter"]): boolean {
  const total = loop.s[loop.s.length - 1];
  return total > 1e-6 && (cutter.centreCutting || lead !== null || total >= Math.PI * LEAST_HELIX * cutter.diameter);
}

/** The last pass at full depth, beside paths that are open to it: down in one of those and over from there. */
export function takeSliver(
  w: ToolpathWriter,
  r: Ready,
  open: readonly Ready[],
  { off, z1 }: { off: number; z1: number },
  shape: PassShape,
  { edges, away }: LeadRules,
): void {
  if (r.lead) return along(w, r, 0, z1, shape);
  const { loop, tabs } = r;
  const isClear = (x0: number, y0: number, x1: number, y1: number) => edges.isClear(x0, y0, x1, y1, away - SLACK);
  const way = wayOver(
    r,
    open.map((q) => q.loop),
    off,
    z1,
    shape,
    isClear,
  );
  // Tabs all round: nowhere is open, so it sinks along the contour.
  if (!way) return along(w, r, 0, z1, shape);
  overFloor(w, way.x, way.y, z1);
  w.plunge(z1);
  w.to(loop.x[way.i], loop.y[way.i], z1);
  pass(w, loop, loop.s[way.i], z1, z1, shape, tabs, OVERLAP);
}

/** Beyond where it began, mm, so that no witness stays. */
export const OVERLAP = 1;

/**
 * One pass at one depth: in by the lead where there is one, sinking along it in the waste, else sinking along the
 * contour.
 */
export function along(w: ToolpathWriter, r: Ready, z0: number, z1: number, shape: PassShape): void {
  const { loop, lead } = r;
  if (!lead) {
    w.above(loop.x[0], loop.y[0]);
    if (z0 < 0) w.rapidTo(z0 + 0.5);
    w.to(loop.x[0], loop.y[0], z0);
    pass(w, loop, 0, z0, z1, shape, r.tabs);
    return;
  }
  const way = leadPoints(lead, 16);
  sinkAlong(
    w,
    Float64Array.from(way, (p) => p[0]),
    Float64Array.from(way, (p) => p[1]),
    z0,
    z1,
    shape.slope,
  );
  if (lead.centre) w.arc(lead.ccw, lead.centre.x, lead.centre.y, loop.x[0], loop.y[0], z1);
  else w.to(loop.x[0], loop.y[0], z1);
  pass(w, loop, 0, z1, z1, shape, r.tabs, OVERLAP);
  // Away from the wall again, where it does not end on it.
  if (r.out?.centre) w.arc(!r.out.ccw, r.out.centre.x, r.out.centre.y, r.out.x0, r.out.y0, z1);
}
