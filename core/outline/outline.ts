import { type Progress, noProgress } from "../problem.ts";
import { flatten, type Shape, ShapeBuilder } from "../geometry/shape.ts";
import { contourArea, type Contours } from "./contours.ts";
import { findCorners, sharpenCorners } from "./corners.ts";
import { crossingContours } from "./crossing.ts";
import { fitContour } from "./fit.ts";

export interface OutlineSettings {
  /** hold within, mm */
  hold: number;
  /** pieces of ink smaller than this go, mm² */
  specks: number;
  /** holes in the ink smaller than this are filled, mm² */
  pinholes: number;
  /** turns sharper than this stay corners, radians */
  cornerAngle: number;
}

/** How picture pixels lie on the stock: x = x0 + scale·px, y = y1 − scale·py. */
export interface Placement {
  /** mm per pixel */
  scale: number;
  /** left edge of the picture, mm */
  x0: number;
  /** upper (far) edge of the picture, mm */
  y1: number;
}

export interface Outline {
  shape: Shape;
  nodes: number;
  /** largest measured distance of a contour point from the fitted curves, mm */
  maxDeviation: number;
  /** pieces and pinholes dropped for their size */
  dropped: number;
  /** x, y in mm of one point of each dropped piece, at most 500 of them */
  droppedAt: Float64Array;
}

/** Points on either side that give a corner its direction: 4 points are about 3 pixels. */
const CORNER_ARM = 4;
/** How often contours that cross after fitting are fitted again at half the hold before their own points serve. */
const REFITS = 4;

/** Which contours are large enough to keep: a dropped contour takes everything inside it along. */
export function keepLarge(c: Contours, scale: number, specks: number, pinholes: number): Uint8Array {
  const n = c.parent.length;
  const keep = new Uint8Array(n);
  const scale2 = scale * scale;
  for (let k = 0; k < n; k++) {
    const p = c.parent[k];
    if (p >= 0 && !keep[p]) continue;
    keep[k] = contourArea(c, k) * scale2 >= (c.hole[k] ? pinholes : specks) ? 1 : 0;
  }
  return keep;
}

/**
 * The outline of the ink: contours above the least size, fitted within `hold`, in mm.
 * Contours that would cross each other after fitting are fitted closer until they do not.
 */
export function fitOutline(c: Contours, place: Placement, s: OutlineSettings, progress: Progress = noProgress): Outline {
  const keep = keepLarge(c, place.scale, s.specks, s.pinholes);
  const n = keep.length;
  const index = new Int32Array(n).fill(-1);
  let kept = 0;
  const droppedAt: number[] = [];
  let dropped = 0;
  for (let k = 0; k < n; k++) {
    if (keep[k]) index[k] = kept++;
    else {
      dropped++;
      const i = 2 * c.starts[k];
      if (droppedAt.length < 1000) droppedAt.push(place.x0 + c.xy[i] * place.scale, place.y1 - c.xy[i + 1] * place.scale);
    }
  }
  const points: Float64Array[] = [];
  const parents: number[] = [];
  for (let k = 0; k < n; k++) {
    if (!keep[k]) continue;
    points.push(toMillimetres(c, k, place));
    parents.push(c.parent[k] < 0 ? -1 : index[c.parent[k]]);
  }

  const holds = new Float64Array(kept).fill(s.hold);
  let shape: Shape;
  let deviation: Float64Array;
  for (let round = 0; ; round++) {
    const built = build(points, parents, holds, s, progress);
    shape = built.shape;
    deviation = built.deviation;
    const crossed = crossingContours(flatten(shape, Math.max(0.002, s.hold / 8)));
    if (crossed.length === 0 || round > REFITS) break;
    for (const k of crossed) holds[k] = round === REFITS ? 0 : holds[k] / 2;
  }
  let maxDeviation = 0;
  for (const d of deviation) if (d > maxDeviation) maxDeviation = d;
  return { shape, nodes: shape.kinds.length, maxDeviation, dropped, droppedAt: Float64Array.from(droppedAt) };
}

function build(points: Float64Array[], parents: number[], holds: Float64Array, s: OutlineSettings, progress: Progress) {
  const out = new ShapeBuilder();
  const deviation = new Float64Array(points.length);
  for (let k = 0; k < points.length; k++) {
    const xy = points[k];
    const n = xy.length / 2;
    if ((k & 63) === 0) progress(k / points.length);
    if (holds[k] === 0) {
      out.begin(xy[0], xy[1], parents[k]);
      for (let i = 1; i <= n; i++) out.line(xy[2 * (i % n)], xy[2 * (i % n) + 1]);
    } else {
      const sharp = sharpenCorners(xy, n, findCorners(xy, n, CORNER_ARM, s.cornerAngle), holds[k]);
      deviation[k] = Math.max(sharp.deviation, fitContour(sharp.xy, sharp.n, sharp.corners, parents[k], holds[k], out));
    }
  }
  return { shape: out.take(), deviation };
}

/** Points of contour k on the stock. Neighbours closer than a hundredth of a pixel are merged: they carry no direction. */
function toMillimetres(c: Contours, k: number, place: Placement): Float64Array {
  const s = c.starts[k];
  const e = c.starts[k + 1];
  const out = new Float64Array(2 * (e - s));
  let at = 0;
  let lastX = c.xy[2 * e - 2];
  let lastY = c.xy[2 * e - 1];
  for (let i = s; i < e; i++) {
    const x = c.xy[2 * i];
    const y = c.xy[2 * i + 1];
    if (Math.abs(x - lastX) + Math.abs(y - lastY) < 0.01 && e - s > 8) continue;
    out[at++] = place.x0 + x * place.scale;
    out[at++] = place.y1 - y * place.scale;
    lastX = x;
    lastY = y;
  }
  return out.slice(0, at);
}
