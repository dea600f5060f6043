import { materialById } from "../cutters/materials.ts";
import { profileOf } from "../cutters/profile.ts";
import type { CutContext, CutInputs, CutKind, Note, Peer, Planned } from "../cuts/kind.ts";
import { cutKind } from "../cuts/register.ts";
import { clearanceOf } from "../geometry/clearance/clearance.ts";
import { regionKey } from "../geometry/regionkey.ts";
import type { Rings } from "../geometry/rings.ts";
import type { Raster } from "../picture/raster.ts";
import { noProgress, Problem, type Progress } from "../problem.ts";
import { newSurface, type Surface, usualCell } from "../proof/surface.ts";
import { withoutFallen } from "../proof/fallen.ts";
import { type LostDetail, lostDetail } from "../proof/lost.ts";
import { nothingSwept, sweep, type SweepReport } from "../proof/sweep.ts";
import { resolve, type Resolved, type Settings } from "../settings/fields.ts";
import { figures, type PathFigures, ToolpathWriter } from "../toolpath/toolpath.ts";
import { moveSeconds } from "../toolpath/time.ts";
import { carveRegion } from "./border.ts";
import { chainOf, type ChainResult, pictureBehind } from "./chain.ts";
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
  /** the first outline's chain */
  chain: ChainResult | null;
  /** every outline's chain that could be computed, by the outline's id */
  chains: ReadonlyMap<string, ChainResult>;
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
  /** the picture, or how to come by each by its content's name */
  raster: Raster | ((sha: string) => Raster);
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

/**
 * Computes a job from its pictures to its proof. Pure: the same job and pictures give the same result; `cache` only
 * keeps what has not changed since the last call.
 */
export function buildJob(job: JobDocument, options: BuildOptions, cache: Derived): BuildResult {
  const now = options.now ?? (() => 0);
  const report = options.progress ?? (() => {});
  const step =
    (name: string): Progress =>
    (share) =>
      report(name, share);
  const timings: Record<string, number> = {};
  const cell = options.cell || job.cell || usualCell(job.stock.width, job.stock.height, options.cells);
  const chains = new Map<string, ChainResult>();
  const result: BuildResult = {
    job,
    chain: null,
    chains,
    cuts: [],
    proof: newSurface(job.stock.width, job.stock.height, cell, job.stock.thickness),
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
  const outlines = job.nodes.filter((n) => n.kind === "outline");
  if (outlines.length === 0)
    result.problem = { code: "no-outline", message: "This job has no outline to cut. Add a picture." };
  for (const outline of outlines)
    attempt(() => {
      const sha = pictureBehind(job, outline.id);
      const chain = chainOf(
        job,
        outline.id,
        typeof options.raster === "function" ? options.raster(sha) : options.raster,
        cache,
        (r) => clearance(r, cache),
        step(outline.id),
        now,
      );
      chains.set(outline.id, chain);
      result.chain ??= chain;
      timings.tone = (timings.tone ?? 0) + chain.timings.tone;
      timings.outline = (timings.outline ?? 0) + chain.timings.outline;
    });
  if (chains.size === 0) return result;
  attempt(() => {
    result.cuts = planCuts(job, chains, cache, step, now);
    for (const c of result.cuts) timings[c.id] = c.took;
    const t0 = now();
    Object.assign(result, prove(job, result.cuts, cell, cache, step("proof")));
    timings.proof = now() - t0;
    result.seconds = totalSeconds(job, result.cuts);
    if (!options.quick) result.lost = compare(result);
  });
  return result;
}

/** The proof as it is looked at: without the waste that falls out of cuts through the stock. */
export function piece({ proof, cuts }: BuildResult): Surface {
  const through = cuts.filter(
    (c) => c.cut.on && c.within && (c.facts.pieces ?? 0) > 0 && (c.cut.kind === "plasma" || c.values.through === true),
  );
  return withoutFallen(
    proof,
    through.map((c) => c.within!),
  );
}

/** The cuts against what they were asked for. */
function compare({ proof, cuts }: BuildResult): NonNullable<BuildResult["lost"]> {
  const map = new Uint8Array(proof.z.length);
  return { map, cuts: cuts.map((c) => (c.cut.on && c.ideal ? lostDetail(proof, c.ideal, map) : null)) };
}

/** A cut's neighbours with their settings filled in, needed before any is planned. */
function contexts(
  job: JobDocument,
): Map<string, { context: CutContext; values: Settings; resolved: Record<string, Resolved> }> {
  const out = new Map<string, { context: CutContext; values: Settings; resolved: Record<string, Resolved> }>();
  const material = materialById(job.stock.material);
  const fill = (cut: JobCut): { context: CutContext; values: Settings; resolved: Record<string, Resolved> } => {
    const known = out.get(cut.id);
    if (known) return known;
    const targetCut = cut.target ? job.cuts.find((c) => c.id === cut.target && c.id !== cut.id) : undefined;
    const target = targetCut && !targetCut.target ? peer(targetCut, fill(targetCut).values) : undefined;
    const context: CutContext = {
      cutter: cut.cutter,
      stock: job.stock,
      material,
      machine: job.machine,
      target,
      helpers: [],
      earlier: [],
    };
    const filled = { context, ...resolve(cutKind(cut.kind).fields, cut.settings, context) };
    out.set(cut.id, filled);
    return filled;
  };
  for (const c of job.cuts) fill(c);
  job.cuts.forEach(
    (c, i) =>
      (out.get(c.id)!.context.earlier = c.target
        ? job.cuts
            .slice(0, i)
            .filter((h) => h.on && h.target === c.target)
            .map((h) => peer(h, out.get(h.id)!.values))
        : []),
  );
  for (const c of job.cuts)
    out.get(c.id)!.context.helpers = job.cuts
      .filter((h) => h.on && h.target === c.id)
      .map((h) => peer(h, out.get(h.id)!.values));
  return out;
}

/** Every cut's settings with their reasons: they need no geometry, so they are there before anything is computed. */
export function cutSettings(job: JobDocument): Record<string, Record<string, Resolved>> {
  return Object.fromEntries([...contexts(job)].map(([id, c]) => [id, c.resolved]));
}

const peer = (c: JobCut, settings: Settings): Peer => ({ id: c.id, kind: c.kind, cutter: c.cutter, settings });

function planCuts(
  job: JobDocument,
  chains: ReadonlyMap<string, ChainResult>,
  cache: Derived,
  step: (name: string) => Progress,
  now: () => number,
): CutResult[] {
  const filled = contexts(job);
  return job.cuts.map((cut) => {
    const { context, values, resolved } = filled.get(cut.id)!;
    const kind = cutKind(cut.kind);
    if (!kind.cutters.includes(cut.cutter.kind))
      throw new Problem(
        "wrong-cutter",
        `"${cut.name}" needs a ${kind.cutters.join(", ").replace(/, ([^,]*)$/, " or $1")} cutter, not a ` +
          `${cut.cutter.kind} one. Choose another from the rack.`,
      );
    profileOf(cut.cutter);
    // A helper works on what its target works on.
    const reads = (job.cuts.find((c) => c.id === cut.target)?.reads ?? cut.reads)[0];
    const chain = chains.get(reads);
    const border = chains.get((job.cuts.find((c) => c.id === cut.target) ?? cut).reads[1]) ?? null;
    const key = hash(
      JSON.stringify([
        chain?.key ?? "",
        border?.key ?? "",
        cut.kind,
        cut.cutter,
        values,
        context.target,
        context.helpers,
        context.earlier,
        job.stock,
        job.machine,
      ]),
    );
    const progress = step(cut.id);
    const planned = cache.get(
      "plan",
      key,
      () => {
        const t0 = now();
        const p = chain
          ? planOne(cut.name, kind, values, context, chain, border, job, cache, progress)
          : shapeless(cut.name, reads !== undefined && job.nodes.some((n) => n.id === reads));
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

function planOne(
  name: string,
  kind: CutKind,
  values: Settings,
  context: CutContext,
  chain: ChainResult,
  border: ChainResult | null,
  job: JobDocument,
  cache: Derived,
  progress: Progress,
): Planned {
  const inputs: CutInputs = {
    ...context,
    ink: chain.ink,
    lines: chain.lines,
    held: chain.held,
    progress,
    carveRegion: (s) =>
      cache.get(
        "region",
        hash(JSON.stringify([chain.key, border?.key ?? "", s.side, s.border, s.borderWidth, job.stock])),
        () => carveRegion(chain.ink, s, job.stock, (r) => clearance(r, cache), border?.ink ?? null),
      ),
    clearance: (r) => clearance(r, cache),
  };
  try {
    return kind.plan(inputs, values);
  } catch (e) {
    if (!(e instanceof Problem)) throw e;
    return nothing({ code: e.code, severity: "stop", message: `${name}: ${e.message}` });
  }
}

const nothing = (note: Note): Planned => ({ toolpath: new ToolpathWriter(1, 1, 1).take(), notes: [note], facts: {} });

/** A cut whose outline was deleted, or could not be traced. */
const shapeless = (name: string, known: boolean): Planned =>
  nothing(
    known
      ? {
          code: "shape-failed",
          severity: "stop",
          message: `${name} has nothing to cut: its outline could not be traced. Mend the outline first.`,
        }
      : {
          code: "no-shape",
          severity: "stop",
          message:
            `${name} has no shape to cut: the outline it worked on is gone. Choose another on its slip, or ` +
            "remove the cut.",
        },
  );

const clearance = (r: Rings, cache: Derived) => cache.get("clearance", regionKey(r), () => clearanceOf(r));

/** The stock after each cut in turn; what is the same as last time is taken from there. */
function prove(
  job: JobDocument,
  cuts: readonly CutResult[],
  cell: number,
  cache: Derived,
  progress: Progress,
): Pick<BuildResult, "proof" | "swept"> {
  const { width, height, thickness } = job.stock;
  let key = hash(`${width}×${height}×${thickness}@${cell}`);
  let proof = newSurface(width, height, cell, thickness);
  const swept = cuts.map((c, i) => {
    if (!c.cut.on) return null;
    key = hash(`${key}|${i}|${c.key}`);
    const before = proof;
    const done = cache.get(
      "proof",
      key,
      () => {
        const next: Surface = { ...before, z: before.z.slice(), by: before.by.slice() };
        const profile = profileOf(c.cut.cutter);
        const report = nothingSwept();
        const n = c.toolpath.kind.length;
        const chunk = Math.max(256, n >> 4);
        for (let from = 0; from < n; from += chunk) {
          progress((i + from / n) / cuts.length);
          sweep(next, c.toolpath, profile, i + 1, from, Math.min(n, from + chunk), report);
        }
        return { next, report };
      },
      6,
    );
    proof = done.next;
    return done.report;
  });
  return { proof, swept };
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
