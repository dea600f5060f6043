import { graphOf } from "@oaken/core/job/build";
import type { JobDocument } from "@oaken/core/job/document";
import { aboutOf } from "@oaken/core/job/graph";
import type { Files } from "@oaken/core/job/tools";
import type { Kept } from "@oaken/core/kept";
import { makingKind } from "@oaken/core/makings/register";
import { noProgress, Problem } from "@oaken/core/problem";
import { toolsOf } from "@oaken/core/job/tools";
import { smallTone } from "./drawn.ts";
import type { DrawnRings, DrawnTone } from "./messages.ts";

/** Pixels that tone sliders work on while they move: the picture at full size follows when they rest. */
const PREVIEW_PIXELS = 500_000;

const NO_RINGS: DrawnRings = { xy: new Float32Array(0), starts: new Int32Array(1) };

/**
 * The shapes that a part is about, roughly, and its greys: fast enough to follow a slider; the exact ones follow when
 * it rests.
 */
export function trace(
  job: JobDocument,
  files: Files,
  kept: Kept,
  part: string,
): { rings: DrawnRings; tone: DrawnTone | null } {
  const making = job.nodes.find((n) => n.id === part);
  const isGrey = making !== undefined && makingKind(making.kind).gives === "grey";
  const graph = graphOf(job, files, kept, { preview: isGrey ? PREVIEW_PIXELS : null });
  const grey = isGrey ? graph.upstream(part, "grey") : null;
  const tone = grey && smallTone(grey.product.grey);
  const shapes = aboutOf(job, part, "shapes");
  if (!shapes) throw new Problem("no-outline", "This job has no outline to cut. Add a picture.");
  const { rough } = makingKind(shapes.kind);
  const found = rough?.(graph.asking(shapes.id), { ...toolsOf(files, kept), progress: noProgress });
  if (!found) return { rings: NO_RINGS, tone };
  return { rings: { xy: Float32Array.from(found.xy), starts: found.starts }, tone };
}
