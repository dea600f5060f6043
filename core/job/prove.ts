import { profileOf } from "../cutters/profile.ts";
import type { Kept } from "../kept.ts";
import type { Progress } from "../problem.ts";
import { newSurface, type Surface } from "../proof/surface.ts";
import { nothingSwept, sweep, type SweepReport } from "../proof/sweep.ts";
import type { JobCut, BoardJob } from "./document.ts";
import type { CutResult, Timed } from "./plan.ts";

/** The stock after a cut, and what sweeping it met with. */
interface Proven {
  surface: Surface;
  report: SweepReport;
}

/** The stock after each cut in turn; what is the same as last time is taken from there. */
export function prove(
  job: BoardJob,
  cuts: readonly CutResult[],
  cell: number,
  kept: Kept,
  progress: Progress,
): { proof: Surface; swept: (SweepReport | null)[] } {
  const { width, height, thickness } = job.stock;
  const blank = (w: number, h: number, c: number, t: number): Proven => ({
    surface: newSurface(w, h, c, t),
    report: nothingSwept(),
  });
  let state = kept.of("blank", [width, height, cell, thickness], blank, 2);
  const swept = cuts.map((cut, i) => {
    if (!cut.cut.on) return null;
    const after = (before: Proven, by: number, { toolpath }: Timed, cutter: JobCut["cutter"]): Proven => {
      const surface: Surface = { ...before.surface, z: before.surface.z.slice(), by: before.surface.by.slice() };
      const profile = profileOf(cutter);
      const report = nothingSwept();
      const n = toolpath.kind.length;
      const chunk = Math.max(256, n >> 4);
      for (let from = 0; from < n; from += chunk) {
        progress((i + from / n) / cuts.length);
        sweep(surface, toolpath, profile, by, from, Math.min(n, from + chunk), report);
      }
      return { surface, report };
    };
    state = kept.of("proof", [state, i + 1, cut.timed, cut.cut.cutter], after, 6);
    return state.report;
  });
  return { proof: state.surface, swept };
}

/** Cutting time with spindle starts and tool changes, s. */
export function totalSeconds(job: BoardJob, cuts: readonly CutResult[]): number {
  let total = 0;
  let last = "";
  for (const c of cuts) {
    if (!c.cut.on || c.toolpath.kind.length === 0) continue;
    const cutter = JSON.stringify(c.cut.cutter);
    if (cutter !== last) total += job.machine.spindleStart + (last ? job.machine.toolChange : 0);
    last = cutter;
    total += c.seconds;
  }
  return total;
}
