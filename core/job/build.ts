import { materialById } from "../cutters/materials.ts";
import { profileOf } from "../cutters/profile.ts";
import type { CutContext, CutInputs, Peer, Planned } from "../cuts/kind.ts";
import { cutKind } from "../cuts/register.ts";
import { clearanceOf } from "../geometry/clearance/clearance.ts";
import { regionKey } from "../geometry/regionkey.ts";
import type { Rings } from "../geometry/rings.ts";
import type { Raster } from "../picture/raster.ts";
import { noProgress, Problem, type Progress } from "../problem.ts";
import { newSurface, type Surface, usualCell } from "../proof/surface.ts";
import { sweep } from "../proof/sweep.ts";
import { resolve, type Resolved, type Settings } from "../settings/fields.ts";
import { figures, type PathFigures } from "../toolpath/toolpath.ts";
import { moveSeconds } from "../toolpath/time.ts";
import { carveRegion } from "./border.ts";
import { chainOf, type ChainResult } from "./chain.ts";
import type { JobCut, JobDocument } from "./document.ts";
import { Derived, hash } from "./hash.ts";

/** A cut, planned and timed. */
export interface CutResult extends Planned {
  id: string;
  key: string;
  cut: JobCut;
  values: Settings;
  resolved: Record<string, Resolved>;
  figures: PathFigures;
  /** seconds of each move */
  moveSeconds: Float64Array;
  /** the whole cut, s */
  seconds: number;
  /** how long planning took, ms */
  took: number;
}

/** Everything derived from a job. `problem` says where it broke, when it did; what came before it is still there. */
export interface BuildResult {
  job: JobDocument;
  chain: ChainResult | null;
  cuts: CutResult[];
  proof: Surface;
  /** seconds of all cuts that are on, with starts and tool changes */
  seconds: number;
  timings: Record<string, number>;
  problem: { code: string; message: string } | null;
}

export interface BuildOptions {
  raster: Raster;
  progress?: (step: string, share: number) => void;
  /** milliseconds, for the timings */
  now?: () => number;
  /** proof cell, mm; otherwise the job's, otherwise automatic */
  cell?: number;
  /** the most cells an automatic proof may have */
  cells?: number;
}

/**
 * Computes a job from its picture to its proof. Pure: the same job and picture give the same result; `cache` only keeps
 * what has not changed since the last call.
 */
export function buildJob(job: JobDocument, options: BuildOptions, cache: Derived): BuildResult {
  const now = options.now ?? (() => 0);
  const report = options.progress ?? (() => {});
  const step = (name: string): Progress => (share) => report(name, share);
  const timings: Record<string, number> = {};
  const cell = options.cell || job.cell || usualCell(job.stock.width, job.stock.height, options.cells);
  const empty = (): Surface => newSurface(job.stock.width, job.stock.height, cell);
  const result: BuildResult = { job, chain: null, cuts: [], proof: empty(), seconds: 0, timings, problem: null };
  try {
    const outline = job.nodes.find((n) => n.kind === "outline");
    if (!outline) throw new Problem("no-outline", "This job has no outline to cut. Add a picture.");
    result.chain = chainOf(job, outline.id, options.raster, cache, (r) => clearance(r, cache), step(outline.id), now);
    timings.tone = result.chain.timings.tone;
    timings.outline = result.chain.timings.outline;
    result.cuts = planCuts(job, result.chain, cache, step, now);
    for (const c of result.cuts) timings[c.id] = c.took;
    const t0 = now();
    result.proof = prove(job, result.cuts, cell, cache, step("proof"));
    timings.proof = now() - t0;
    result.seconds = totalSeconds(job, result.cuts);
  } catch (e) {
    if (!(e instanceof Problem)) throw e;
    result.problem = { code: e.code, message: e.message };
  }
  return result;
}

/** A cut's neighbours with their settings filled in, needed before any is planned. */
function contexts(job: JobDocument): Map<string, { context: CutContext; values: Settings; resolved: Record<string, Resolved> }> {
  const out = new Map<string, { context: CutContext; values: Settings; resolved: Record<string, Resolved> }>();
  const material = materialById(job.stock.material);
  const fill = (cut: JobCut): { context: CutContext; values: Settings; resolved: Record<string, Resolved> } => {
    const known = out.get(cut.id);
    if (known) return known;
    const targetCut = cut.target ? job.cuts.find((c) => c.id === cut.target && c.id !== cut.id) : undefined;
    const target = targetCut && !targetCut.target ? peer(targetCut, fill(targetCut).values) : undefined;
    const context: CutContext = { cutter: cut.cutter, stock: job.stock, material, machine: job.machine, target, helpers: [], earlier: [] };
    const filled = { context, ...resolve(cutKind(cut.kind).fields, cut.settings, context) };
    out.set(cut.id, filled);
    return filled;
  };
  for (const c of job.cuts) fill(c);
  job.cuts.forEach((c, i) => (out.get(c.id)!.context.earlier = c.target ? job.cuts.slice(0, i).filter((h) => h.on && h.target === c.target).map((h) => peer(h, out.get(h.id)!.values)) : []));
  for (const c of job.cuts) out.get(c.id)!.context.helpers = job.cuts.filter((h) => h.on && h.target === c.id).map((h) => peer(h, out.get(h.id)!.values));
  return out;
}

/** Every cut's settings with their reasons: they need no geometry, so they are there before anything is computed. */
export function cutSettings(job: JobDocument): Record<string, Record<string, Resolved>> {
  return Object.fromEntries([...contexts(job)].map(([id, c]) => [id, c.resolved]));
}

const peer = (c: JobCut, settings: Settings): Peer => ({ id: c.id, kind: c.kind, cutter: c.cutter, settings });

function planCuts(job: JobDocument, chain: ChainResult, cache: Derived, step: (name: string) => Progress, now: () => number): CutResult[] {
  const filled = contexts(job);
  return job.cuts.map((cut) => {
    const { context, values, resolved } = filled.get(cut.id)!;
    const kind = cutKind(cut.kind);
    if (!kind.cutters.includes(cut.cutter.kind)) throw new Problem("wrong-cutter", `"${cut.name}" needs a ${kind.cutters.join(" or ")} cutter, not a ${cut.cutter.kind} one. Choose another from the rack.`);
    profileOf(cut.cutter);
    const key = hash(JSON.stringify([chain.key, cut.kind, cut.cutter, values, context.target, context.helpers, context.earlier, job.stock, job.machine]));
    const progress = step(cut.id);
    const planned = cache.get(
      "plan",
      key,
      () => {
        const t0 = now();
        const inputs: CutInputs = {
          ...context,
          ink: chain.ink,
          lines: chain.lines,
          progress,
          carveRegion: (s) => cache.get("region", hash(JSON.stringify([chain.key, s.side, s.border, s.borderWidth, job.stock])), () => carveRegion(chain.ink, s, job.stock, (r) => clearance(r, cache))),
          clearance: (r, loss) => clearance(r, cache, loss),
        };
        const p = kind.plan(inputs, values);
        const seconds = moveSeconds(p.toolpath, job.machine);
        let total = 0;
        for (const s of seconds) total += s;
        return { ...p, figures: figures(p.toolpath), moveSeconds: seconds, seconds: total, took: now() - t0 };
      },
      24,
    );
    progress(1);
    return { ...planned, id: cut.id, key, cut, values, resolved };
  });
}

const clearance = (r: Rings, cache: Derived, loss?: number) => cache.get("clearance", regionKey(r) + (loss ?? ""), () => clearanceOf(r, loss));

/** The stock after each cut in turn; what is the same as last time is taken from there. */
function prove(job: JobDocument, cuts: readonly CutResult[], cell: number, cache: Derived, progress: Progress): Surface {
  let key = hash(`${job.stock.width}×${job.stock.height}@${cell}`);
  let surface = newSurface(job.stock.width, job.stock.height, cell);
  cuts.forEach((c, i) => {
    if (!c.cut.on) return;
    key = hash(`${key}|${i}|${c.key}`);
    const before = surface;
    surface = cache.get(
      "proof",
      key,
      () => {
        const next: Surface = { ...before, z: before.z.slice(), by: before.by.slice() };
        const profile = profileOf(c.cut.cutter);
        const n = c.toolpath.kind.length;
        const chunk = Math.max(256, n >> 4);
        for (let from = 0; from < n; from += chunk) {
          progress((i + from / n) / cuts.length);
          sweep(next, c.toolpath, profile, i + 1, from, Math.min(n, from + chunk));
        }
        return next;
      },
      6,
    );
  });
  return surface;
}

/** Cutting time with spindle starts and tool changes. */
function totalSeconds(job: JobDocument, cuts: readonly CutResult[]): number {
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

export { Derived, noProgress };
