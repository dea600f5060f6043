import { profileOf } from "../cutters/profile.ts";
import type { CutContext, CutInputs, CutKind, Intent, Left, Note, Planned } from "../cuts/kind.ts";
import { cutKind } from "../cuts/register.ts";
import { strokeWidths } from "../geometry/clearance/strokes.ts";
import { ringCount } from "../geometry/rings.ts";
import type { Kept } from "../kept.ts";
import type { Product } from "../makings/product.ts";
import { noProgress, Problem, type Progress } from "../problem.ts";
import type { Resolved, Settings } from "../settings/fields.ts";
import { figures, type PathFigures, ToolpathWriter } from "../toolpath/toolpath.ts";
import { raised } from "../toolpath/over.ts";
import { moveSeconds } from "../toolpath/time.ts";
import type { JobCut, BoardJob } from "./document.ts";
import type { Made } from "./graph.ts";
import { contexts, type StrokesOf } from "./contexts.ts";
import { clearance } from "./tools.ts";

/** A plan with its figures and times. */
export interface Timed extends Planned {
  figures: PathFigures;
  /** seconds of each move */
  moveSeconds: Float64Array;
  /** the whole cut, s */
  seconds: number;
  /** how long planning took, ms */
  took: number;
}

/** A cut, planned and timed. */
export interface CutResult extends Timed {
  id: string;
  cut: JobCut;
  kind: CutKind;
  values: Settings;
  resolved: Record<string, Resolved>;
  /** what it means to do, whatever came of it */
  intent: Intent;
  /** the same plan as it is kept: other things are known by it */
  timed: Timed;
}

/** Strokes from what was made, kept. */
const strokesIn =
  ({ makings, kept }: Pick<Planning, "makings" | "kept">): StrokesOf =>
  ({ kind, reads, settings }) => {
    const art = makings.get(reads.art)?.product;
    if (!cutKind(kind).seesStrokes?.(settings) || art?.is !== "shapes" || ringCount(art.ink) === 0) return undefined;
    return kept.of("stroke-widths", [art.ink], (ink) => strokeWidths(clearance(ink, kept))) ?? undefined;
  };

/** What a cut reads, by the names of its kind: null for what may be left out and is. */
type Reads = Record<string, Product | null>;

/** The products that a cut reads; what is missing where one that it needs is not there. */
function readsOf(cut: JobCut, kind: CutKind, job: BoardJob, makings: ReadonlyMap<string, Made>): Reads | Note {
  const reads: Reads = {};
  for (const [name, take] of Object.entries(kind.reads)) {
    const id = cut.reads[name];
    const product = makings.get(id)?.product;
    const fits = product?.is === take.gives;
    if (!fits && !take.optional) return missing(cut.name, id !== undefined && job.makings.some((n) => n.id === id));
    reads[name] = fits ? product : null;
  }
  return reads;
}

/** A cut whose outline was deleted, or could not be traced. */
const missing = (name: string, isKnown: boolean): Note =>
  isKnown
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
      };
const isNote = (r: Reads | Note): r is Note => "severity" in r && typeof r.severity === "string";

/** What planning takes besides the job. */
export interface Planning {
  makings: ReadonlyMap<string, Made>;
  kept: Kept;
  /** for a first look, mm */
  grain: number | null;
  step(name: string): Progress;
  /** milliseconds, for the timings */
  now(): number;
}

/**
 * Every cut planned, in machining order; what was planned before from the same things is taken from there.
 * @param isAsked whether a cut is asked for, where not all are
 */
export function planCuts(
  job: BoardJob,
  { makings, kept, grain, step, now }: Planning,
  isAsked: (cut: JobCut) => boolean = () => true,
): CutResult[] {
  const filled = contexts(job, strokesIn({ makings, kept }));
  return job.cuts.filter(isAsked).map((cut) => {
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
    const about = job.cuts.find((c) => c.id === cut.target) ?? cut;
    const reads = readsOf({ ...about, name: cut.name }, kind, job, makings);
    const progress = step(cut.id);
    const plan = (ofKind: string, name: string, from: Reads | Note, own: Settings, c: CutContext, g: typeof grain) => {
      const t0 = now();
      const inputs = isNote(from) ? null : { ...inputsFor(from, c, kept, progress), grain: g };
      const planned = inputs ? planOne(cutKind(ofKind), name, inputs, own) : nothing(from as Note);
      const toolpath = raised(planned.toolpath, c.stock.travel);
      const seconds = moveSeconds(toolpath, c.machine);
      let total = 0;
      for (const s of seconds) total += s;
      total *= planned.standsFor ?? 1;
      return {
        ...planned,
        toolpath,
        figures: figures(toolpath),
        moveSeconds: seconds,
        seconds: total,
        took: now() - t0,
      };
    };
    const coarse = kind.isGrainy ? grain : null;
    const timed: Timed = kept.of("plan", [kind.kind, cut.name, reads, values, context, coarse], plan, PLANS);
    progress(1);
    return { ...timed, timed, id: cut.id, cut, kind, values, resolved, intent: kind.intent(values, context) };
  });
}

/** How long a cut would take, found without planning it, s; null where its kind cannot tell or nothing is to be cut. */
export const estimateCut = (job: BoardJob, id: string, planning: Planning): number | null =>
  asked(job, id, planning, "estimate");

/** How long a cut would take at least, s; null where its kind cannot tell or nothing is to be cut. */
export const leastOfCut = (job: BoardJob, id: string, planning: Planning): number | null =>
  asked(job, id, planning, "atLeast");

/** What a cut would leave, found without planning it; null where its kind cannot tell or nothing is to be cut. */
export const leftByCut = (job: BoardJob, id: string, planning: Planning): Left | null =>
  asked(job, id, planning, "left");

/** What a kind of cut tells without planning, kept. */
function asked<K extends "estimate" | "atLeast" | "left">(
  job: BoardJob,
  id: string,
  { makings, kept }: Planning,
  what: K,
) {
  const cut = job.cuts.find((c) => c.id === id)!;
  const kind = cutKind(cut.kind);
  const { context, values } = contexts(job, strokesIn({ makings, kept })).get(id)!;
  const about = job.cuts.find((c) => c.id === cut.target) ?? cut;
  const reads = readsOf({ ...about, name: cut.name }, kind, job, makings);
  if (!kind[what] || isNote(reads)) return null;
  const tell = (ofKind: string, from: Reads, own: Settings, c: CutContext) =>
    cutKind(ofKind)[what]!({ ...inputsFor(from, c, kept, noProgress), grain: null }, own) as ReturnType<
      NonNullable<CutKind[K]>
    >;
  return kept.of(what, [kind.kind, reads, values, context], tell, TOLD);
}

/** Estimates that are kept: numbers, so that many cost nothing. */
const TOLD = 500;

/** Plans that are kept: those of two or three versions of a job with many cuts. */
const PLANS = 24;

const inputsFor = (reads: Reads, context: CutContext, kept: Kept, progress: Progress): Omit<CutInputs, "grain"> => ({
  ...context,
  reads: reads as CutInputs["reads"],
  kept,
  progress,
  clearance: (r) => clearance(r, kept),
});

function planOne(kind: CutKind, name: string, inputs: CutInputs, values: Settings): Planned {
  try {
    return kind.plan(inputs, values);
  } catch (e) {
    if (!(e instanceof Problem)) throw e;
    return nothing({ code: e.code, severity: "stop", message: `${name}: ${e.message}` });
  }
}

const nothing = (note: Note): Planned => ({ toolpath: new ToolpathWriter(1, 1, 1).take(), notes: [note], facts: {} });
