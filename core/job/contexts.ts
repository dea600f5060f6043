import type { CutContext, Peer } from "../cuts/kind.ts";
import { cutKind } from "../cuts/register.ts";
import type { StrokeWidths } from "../geometry/clearance/strokes.ts";
import { resolve, type Resolved, type Settings } from "../settings/fields.ts";
import { travelHeight } from "../toolpath/over.ts";
import type { BoardJob, JobCut } from "./document.ts";

/** A cut with its neighbours known and its settings filled in, before any is planned. */
interface Filled {
  context: CutContext;
  values: Settings;
  resolved: Record<string, Resolved>;
}

/** How wide the strokes are that a cut works on, where its kind asks for it and it can be told. */
export type StrokesOf = (cut: JobCut) => StrokeWidths | undefined;

/** A cut's neighbours with their settings filled in, needed before any is planned. */
export function contexts(job: BoardJob, strokesOf: StrokesOf = () => undefined): Map<string, Filled> {
  const out = new Map<string, Filled>();
  const { width, height, thickness, margin, material, paint, coat = 0, clamps } = job.stock;
  const fill = (cut: JobCut): Filled => {
    const known = out.get(cut.id);
    if (known) return known;
    const targetCut = cut.target ? job.cuts.find((c) => c.id === cut.target && c.id !== cut.id) : undefined;
    const target = targetCut && !targetCut.target ? peer(targetCut, fill(targetCut).values) : undefined;
    const context: CutContext = {
      strokes: strokesOf(cut),
      cutter: cut.cutter,
      stock: { width, height, thickness, margin, coat: paint ? coat : 0, travel: travelHeight(clamps) },
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

/**
 * Every cut's settings with their reasons, as they are before anything is computed: they need no geometry, but for how
 * wide strokes are.
 */
export function cutSettings(job: BoardJob): Record<string, Record<string, Resolved>> {
  return Object.fromEntries([...contexts(job)].map(([id, c]) => [id, c.resolved]));
}

export const peer = (c: JobCut, settings: Settings): Peer => ({ id: c.id, kind: c.kind, cutter: c.cutter, settings });
