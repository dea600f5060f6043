import { boundsOf } from "../../geometry/rings.ts";
import { contourArea } from "../../outline/contours.ts";
import { keepLarge } from "../../outline/outline.ts";
import { boxAround, type PictureBox } from "../../picture/frame.ts";
import type { Settings } from "../../settings/fields.ts";
import type { Tools } from "../kind.ts";
import type { GreyProduct } from "../product.ts";
import { coloursOfOutline } from "./colours.ts";
import { contoursOf, drawnOf, edgesOf } from "./trace.ts";

/** The smallest upright box round what an outline finds in its picture, pixels; null where it finds nothing. */
export function artIn(from: GreyProduct, own: Settings, tools: Tools): PictureBox | null {
  const { values, isSet } = edgesOf(from, own, tools);
  if (values.trace === "colours") {
    const { borders, isEdge } = coloursOfOutline(from.picture, values, tools);
    return boxOfRuns(borders.arcs.xy, borders.arcs.starts, isEdge);
  }
  const contours = contoursOf(from, values.ink, tools);
  const drawn = drawnOf(contours, from, values, isSet);
  const keep = keepLarge(contours, from.picture.place.scale, values.specks, values.pinholes, drawn);
  return boxOfRuns(contours.xy, contours.starts, (k) => keep[k] === 1 && contourArea(contours, k) > 0);
}

function boxOfRuns(xy: Float64Array, starts: Int32Array, which: (k: number) => boolean): PictureBox | null {
  let box: PictureBox | null = null;
  for (let k = 0; k + 1 < starts.length; k++) {
    if (!which(k)) continue;
    const b = boundsOf(xy, starts[k], starts[k + 1]);
    const own = { x: b.minX, y: b.minY, width: b.maxX - b.minX, height: b.maxY - b.minY };
    box = box ? boxAround(box, own) : own;
  }
  return box && box.width > 0 && box.height > 0 ? box : null;
}
