import type { Machine } from "../cutters/machine.ts";
import { type Cutter, profileOf } from "../cutters/profile.ts";
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
export const totalSeconds = (job: BoardJob, cuts: readonly CutResult[]): number =>
  withChanges(
    job.machine,
    cuts
      .filter((c) => c.cut.on && c.toolpath.kind.length > 0)
      .map((c) => ({ cutter: c.cut.cutter, seconds: c.seconds })),
  );

/** Seconds of cuts one after another, with a spindle start each time that the cutter is another, and its change. */
export function withChanges(machine: Machine, cuts: readonly { cutter: Cutter; seconds: number }[]): number {
  let total = 0;
  let last = "";
  for (const { cutter, seconds } of cuts) {
    const tool = JSON.stringify(cutter);
    if (tool !== last) total += machine.spindleStart + (last ? machine.toolChange : 0);
    last = tool;
    total += seconds;
  }
  return total;
}
