import { graphOf } from "@oaken/core/job/build";
import type { BoardJob } from "@oaken/core/job/document";
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

/**
 * The shapes that a part is about, roughly, and its greys: fast enough to follow a slider; the exact ones follow when
 * it rests. No rings where there is no rough way to them.
 */
export function preview(
  job: BoardJob,
  files: Files,
  kept: Kept,
  part: string,
): { rings: DrawnRings | null; tone: DrawnTone | null } {
  const making = job.makings.find((n) => n.id === part);
  const isGrey = making !== undefined && makingKind(making.kind).gives === "grey";
  const graph = graphOf(job, files, kept, { preview: isGrey ? PREVIEW_PIXELS : null });
  const grey = isGrey ? graph.upstream(part, "grey") : null;
  const tone = grey && smallTone(grey.product.grey);
  const shapes = aboutOf(job, part, "shapes");
  if (!shapes) throw new Problem("no-outline", "This job has no outline to cut. Add a picture.");
  const { rough } = makingKind(shapes.kind);
  const found = rough?.(graph.asking(shapes.id), { ...toolsOf(files, kept), progress: noProgress });
  return { rings: found ? { xy: Float32Array.from(found.xy), starts: found.starts } : null, tone };
}
