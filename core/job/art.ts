import { contourArea } from "../outline/contours.ts";
import { keepLarge } from "../outline/outline.ts";
import { boundsOf } from "../geometry/rings.ts";
import type { PictureBox } from "../picture/frame.ts";
import { noProgress, Problem } from "../problem.ts";
import { resolve, type Settings } from "../settings/fields.ts";
import type { PictureResult } from "./chain.ts";
import type { JobNode } from "./document.ts";
import type { Derived } from "./hash.ts";
import { outlineFields } from "./nodes/outline.ts";
import { coloursOfOutline } from "./colours.ts";
import { contoursOf, drawnOf, outlineContext } from "./trace.ts";

/**
 * The smallest upright box round what all outlines of a picture find in it; null where they find nothing.
 * @param at the picture behind an outline with its tone, placed as far as is known: some settings are in mm
 */
export function artOf(
  outlines: readonly JobNode[],
  at: (outline: string) => PictureResult,
  cache: Derived,
): PictureBox | null {
  let box: PictureBox | null = null;
  for (const outline of outlines) {
    let own: PictureBox | null;
    try {
      own = boxOf(at(outline.id), outline.settings, cache);
    } catch (e) {
      // What cannot be traced is told where it is traced.
      if (!(e instanceof Problem)) throw e;
      own = null;
    }
    box = box && own ? around(box, own) : (own ?? box);
  }
  return box;
}

/** What width and place are given of, mm on the stock. */
export function measuredSize({ art, place, raster }: PictureResult): { width: number; height: number } {
  const { width, height } = art ?? raster;
  return { width: place.scale * width, height: place.scale * height };
}

/** How closely an outline is held takes long to find out, and says nothing of where the art is. */
const FINDS = outlineFields.filter((f) => f.key !== "hold");

function boxOf(p: PictureResult, own: Settings, cache: Derived): PictureBox | null {
  const { values, resolved } = resolve(FINDS, own, outlineContext(p, cache));
  if (values.trace === "colours") {
    const { arcs, isEdge } = coloursOfOutline(p, values, cache, noProgress);
    return boxOfRuns(arcs.xy, arcs.starts, isEdge);
  }
  const contours = contoursOf(p, values, cache);
  const auto = { hold: false, specks: !resolved.specks.set && !resolved.pinholes.set };
  const drawn = drawnOf(contours, p, values, auto);
  const keep = keepLarge(contours, p.place.scale, values.specks as number, values.pinholes as number, drawn);
  return boxOfRuns(contours.xy, contours.starts, (k) => keep[k] === 1 && contourArea(contours, k) > 0);
}

function boxOfRuns(xy: Float64Array, starts: Int32Array, which: (k: number) => boolean): PictureBox | null {
  let box: PictureBox | null = null;
  for (let k = 0; k + 1 < starts.length; k++) {
    if (!which(k)) continue;
    const b = boundsOf(xy, starts[k], starts[k + 1]);
    const own = { x: b.minX, y: b.minY, width: b.maxX - b.minX, height: b.maxY - b.minY };
    box = box ? around(box, own) : own;
  }
  return box && box.width > 0 && box.height > 0 ? box : null;
}

function around(a: PictureBox, b: PictureBox): PictureBox {
  const [x, y] = [Math.min(a.x, b.x), Math.min(a.y, b.y)];
  const right = Math.max(a.x + a.width, b.x + b.width);
  const bottom = Math.max(a.y + a.height, b.y + b.height);
  return { x, y, width: right - x, height: bottom - y };
}
