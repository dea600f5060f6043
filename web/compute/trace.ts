import { contoursAt } from "@oaken/core/outline/contours";
import { keepLarge } from "@oaken/core/outline/outline";
import { resolve } from "@oaken/core/settings/fields";
import { outlineOf, pictureBehind, pictureOf } from "@oaken/core/job/chain";
import { drawnOf } from "@oaken/core/job/trace";
import type { JobDocument } from "@oaken/core/job/document";
import type { Derived } from "@oaken/core/job/hash";
import { outlineFields } from "@oaken/core/job/nodes/outline";
import { frameOf } from "@oaken/core/job/nodes/picture";
import { framed } from "@oaken/core/picture/frame";
import type { Raster } from "@oaken/core/picture/raster";
import { shrunk } from "@oaken/core/picture/shrink";
import { noProgress } from "@oaken/core/problem";
import { smallTone } from "./drawn.ts";
import type { DrawnRings, DrawnTone } from "./messages.ts";

/** Pixels that tone sliders work on while they move: the picture at full size follows when they rest. */
const PREVIEW_PIXELS = 500_000;

/**
 * The contours as they are before fitting, and the tone: fast enough to follow a slider; the exact ones follow when it
 * rests.
 */
export function trace(
  job: JobDocument,
  rasters: (sha: string) => Raster,
  cache: Derived,
  part: string,
): { rings: DrawnRings; tone: DrawnTone | null } {
  const outline = job.nodes.find((n) => n.id === outlineOf(job, part))!;
  const raster = rasters(pictureBehind(job, outline.id));
  const partKind = job.nodes.find((n) => n.id === part)?.kind;
  const picture = job.nodes.find((n) => n.asset?.sha === pictureBehind(job, outline.id))!;
  const coarse =
    partKind === "tone" && raster.width * raster.height > 2 * PREVIEW_PIXELS
      ? cache.get(
          "coarse",
          `${picture.asset!.sha}|${JSON.stringify(frameOf(picture.settings))}`,
          () => shrunk(framed(raster, frameOf(picture.settings)), PREVIEW_PIXELS),
          1,
        )
      : null;
  const p = pictureOf(job, outline.id, raster, cache, noProgress, coarse);
  const { place } = p;
  const { values, resolved } = resolve(outlineFields, outline.settings, {
    found: p.toneResult.found,
    scale: place.scale,
    noise: () => 0,
  });
  const tone = partKind === "tone" ? smallTone(p.toneResult.grey) : null;
  if (values.trace === "colours") return { rings: { xy: new Float32Array(0), starts: new Int32Array(1) }, tone };
  const c = contoursAt(p.toneResult.grey, values.ink as number);
  const auto = { hold: true, specks: !resolved.specks.set && !resolved.pinholes.set };
  const keep = keepLarge(
    c,
    place.scale,
    values.specks as number,
    values.pinholes as number,
    drawnOf(c, p, values, auto),
  );
  let points = 0;
  for (let k = 0; k < keep.length; k++) if (keep[k]) points += c.starts[k + 1] - c.starts[k];
  const xy = new Float32Array(2 * points);
  const starts: number[] = [0];
  let at = 0;
  for (let k = 0; k < keep.length; k++) {
    if (!keep[k]) continue;
    for (let i = c.starts[k]; i < c.starts[k + 1]; i++) {
      xy[at++] = place.x0 + c.xy[2 * i] * place.scale;
      xy[at++] = place.y1 - c.xy[2 * i + 1] * place.scale;
    }
    starts.push(at / 2);
  }
  return { rings: { xy, starts: Int32Array.from(starts) }, tone };
}
