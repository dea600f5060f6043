import { contoursAt } from "@oaken/core/outline/contours";
import { keepLarge } from "@oaken/core/outline/outline";
import { resolve } from "@oaken/core/settings/fields";
import { toneOf } from "@oaken/core/job/chain";
import type { JobDocument } from "@oaken/core/job/document";
import type { Derived } from "@oaken/core/job/hash";
import { outlineFields } from "@oaken/core/job/nodes/outline";
import { pictureFields, placement } from "@oaken/core/job/nodes/picture";
import type { Raster } from "@oaken/core/picture/raster";
import type { DrawnRings } from "./messages.ts";

/** The contours as they are before fitting: fast enough to follow a slider; the fitted outline follows when it rests. */
export function trace(job: JobDocument, raster: Raster, cache: Derived): DrawnRings {
  const node = (kind: string) => job.nodes.find((n) => n.kind === kind)!;
  const tone = toneOf(raster, node("picture").asset!.sha, node("tone").settings, cache);
  const place = placement(resolve(pictureFields, node("picture").settings, { stock: job.stock, width: raster.width, height: raster.height }).values, raster.width, raster.height);
  const { values } = resolve(outlineFields, node("outline").settings, { found: tone.found, scale: place.scale });
  const c = contoursAt(tone.grey, values.ink as number, tone.tiles);
  const keep = keepLarge(c, place.scale, values.specks as number, values.pinholes as number);
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
  return { xy, starts: Int32Array.from(starts) };
}
