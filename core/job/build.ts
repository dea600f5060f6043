import type { Kept } from "../kept.ts";
import { Problem, type Progress } from "../problem.ts";
import { newSurface, type Surface, usualCell } from "../proof/surface.ts";
import { withoutFallen } from "../proof/fallen.ts";
import { type LostDetail, lostDetail } from "../proof/lost.ts";
import type { SweepReport } from "../proof/sweep.ts";
import type { BoardJob } from "./document.ts";
import { Graph, type GraphOptions, type Made, isCuttable } from "./graph.ts";
import { type CutResult, planCuts } from "./plan.ts";
import { prove, totalSeconds } from "./prove.ts";
import { type Files, toolsOf } from "./tools.ts";

/** Everything derived from a job. `problem` says where it broke, when it did; what came before it is still there. */
export interface BuildResult {
  job: BoardJob;
  /** every making that could be made, by its id, in the job's order */
  makings: ReadonlyMap<string, Made>;
  cuts: CutResult[];
  proof: Surface;
  /** what sweeping each cut met with, in their order; null for those switched off */
  swept: (SweepReport | null)[];
  /** how high stock stands above what each cut was asked for, cell by cell and in figures; null for a quick proof */
  lost: { map: Uint8Array; cuts: (LostDetail | null)[] } | null;
  /** seconds of all cuts that are on, with starts and tool changes */
  seconds: number;
  timings: Record<string, number>;
  problem: { code: string; message: string } | null;
}

export interface BuildOptions {
  files: Files;
  progress?: (step: string, share: number) => void;
  /** milliseconds, for the timings */
  now?: () => number;
  /** proof cell, mm; otherwise the job's, otherwise automatic */
  cell?: number;
  /** the most cells an automatic proof may have */
  cells?: number;
  /** leaves out what only a finished proof needs */
  quick?: boolean;
}

/** The makings of a job, to be asked for one by one. */
export const graphOf = (job: BoardJob, files: Files, kept: Kept, options: GraphOptions = {}): Graph =>
  new Graph(job, toolsOf(files, kept), options);

/**
 * Computes a job from its files to its proof. Pure: the same job and files give the same result; `kept` only keeps
 * what has not changed since the last call.
 */
export function buildJob(job: BoardJob, options: BuildOptions, kept: Kept): BuildResult {
  const now = options.now ?? (() => 0);
  const report = options.progress ?? (() => {});
  const step =
    (name: string): Progress =>
    (share) =>
      report(name, share);
  const timings: Record<string, number> = {};
  const { width, height, thickness } = job.stock;
  const cell = options.cell || job.cell || usualCell(width, height, options.cells);
  const makings = new Map<string, Made>();
  const result: BuildResult = {
    job,
    makings,
    cuts: [],
    proof: newSurface(width, height, cell, thickness),
    swept: [],
    lost: null,
    seconds: 0,
    timings,
    problem: null,
  };
  const attempt = (work: () => void) => {
    try {
      work();
    } catch (e) {
      if (!(e instanceof Problem)) throw e;
      result.problem ??= { code: e.code, message: e.message };
    }
  };
  if (!job.makings.some((m) => isCuttable(job, m)))
    result.problem = { code: "no-outline", message: "This job has no outline to cut. Add a picture." };
  const graph = graphOf(job, options.files, kept, { step, now });
  for (const { id } of job.makings)
    attempt(() => {
      const made = graph.made(id);
      makings.set(id, made);
      timings[made.kind.kind] = (timings[made.kind.kind] ?? 0) + made.took;
    });
  if (![...makings.values()].some((m) => isCuttable(job, m.making))) return result;
  attempt(() => {
    result.cuts = planCuts(job, { makings, kept, grain: options.quick ? cell : null, step, now });
    for (const c of result.cuts) timings[c.id] = c.took;
    const t0 = now();
    Object.assign(result, prove(job, result.cuts, cell, kept, step("proof")));
    timings.proof = now() - t0;
    result.seconds = totalSeconds(job, result.cuts);
    if (!options.quick) result.lost = compare(result);
  });
  return result;
}

/** The proof as it is looked at: without the waste that falls out of cuts through the stock. */
export function finished({ proof, cuts }: BuildResult): Surface {
  const through = cuts.filter((c) => c.cut.on && c.within && c.freed && c.freed.pieces > 0);
  return withoutFallen(
    proof,
    through.map((c) => c.within!),
  );
}

/** The cuts against what they were asked for. */
function compare({ proof, cuts }: BuildResult): NonNullable<BuildResult["lost"]> {
  const map = new Uint8Array(proof.z.length);
  return { map, cuts: cuts.map((c) => (c.cut.on && c.asked ? lostDetail(proof, c.asked, map) : null)) };
}
