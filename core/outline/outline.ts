import type { Shape } from "../geometry/shape.ts";
import { noProgress, type Progress } from "../problem.ts";
import { contourArea, type Contours } from "./contours.ts";
import type { Course } from "./course.ts";
import { checkBusy, fitCourses } from "./courses.ts";
import { edgeNoise, smoothed } from "./noise.ts";

export interface OutlineSettings {
  /** hold within, mm */
  hold: number;
  /** pieces of ink smaller than this go, mm² */
  specks: number;
  /** holes in the ink smaller than this are filled, mm² */
  pinholes: number;
  /** contours that are kept whatever their size, 1 for each */
  drawn?: Uint8Array;
  /** turns sharper than this stay corners, radians */
  cornerAngle: number;
  /** how far noise moves the picture's edges, px; found from the contours where not given */
  noise?: number;
  /** where greys hardly change, so that the picture hardly says where the edge is, the fit may stray farther */
  faint?: boolean;
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

/**
 * Which contours are large enough to keep: a dropped contour takes everything inside it along.
 * @param drawn contours that are kept whatever their size: see `drawnContours`
 */
export function keepLarge(
  c: Contours,
  scale: number,
  specks: number,
  pinholes: number,
  drawn?: Uint8Array,
): Uint8Array {
  const n = c.parent.length;
  const keep = new Uint8Array(n);
  const scale2 = scale * scale;
  for (let k = 0; k < n; k++) {
    const p = c.parent[k];
    if (p >= 0 && !keep[p]) continue;
    keep[k] = drawn?.[k] || contourArea(c, k) * scale2 >= (c.hole[k] ? pinholes : specks) ? 1 : 0;
  }
  return keep;
}

/**
 * The outline of the ink: contours above the least size, fitted within `hold`, in mm, and sound as cuts read them.
 * @throws Problem `too-busy`
 */
export function fitOutline(
  c: Contours,
  place: Placement,
  s: OutlineSettings,
  progress: Progress = noProgress,
): Outline {
  const keep = keepLarge(c, place.scale, s.specks, s.pinholes, s.drawn);
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
      if (droppedAt.length < 1000)
        droppedAt.push(place.x0 + c.xy[i] * place.scale, place.y1 - c.xy[i + 1] * place.scale);
    }
  }
  let total = 0;
  for (let k = 0; k < n; k++) if (keep[k]) total += c.starts[k + 1] - c.starts[k];
  checkBusy(total);
  const noise = s.noise ?? edgeNoise(c, (k) => keep[k] === 1);
  const courses: Course[] = [];
  const parent = new Int32Array(kept);
  for (let k = 0; k < n; k++) {
    if (!keep[k]) continue;
    parent[index[k]] = c.parent[k] < 0 ? -1 : index[c.parent[k]];
    courses.push(courseOf(c, k, place, s, noise));
  }
  const { shape, maxDeviation } = fitCourses(courses, s.cornerAngle, progress);
  shape.parent = parent;
  return { shape, nodes: shape.kinds.length, maxDeviation, dropped, droppedAt: Float64Array.from(droppedAt) };
}

/**
 * A fit may take this much of a contour's mean thickness, area over perimeter, or of a pixel where that is more: it
 * would fold up.
 */
const OF_THICKNESS = 1;
const OF_PIXEL = 0.3;
/** Points nearer together than this carry no direction, px: one of them serves. */
const TOGETHER = 0.01;

/** Contour k on the stock. */
function courseOf(c: Contours, k: number, place: Placement, s: OutlineSettings, noise: number): Course {
  const start = c.starts[k];
  const n = c.starts[k + 1] - start;
  const raw = new Float64Array(2 * n);
  const source = new Int32Array(n);
  let at = 0;
  let lastX = c.xy[2 * (start + n) - 2];
  let lastY = c.xy[2 * (start + n) - 1];
  let round = 0;
  let area = 0;
  for (let i = start; i < start + n; i++) {
    const x = c.xy[2 * i];
    const y = c.xy[2 * i + 1];
    const step = Math.abs(x - lastX) + Math.abs(y - lastY);
    if (step < TOGETHER && n > 8) continue;
    round += step;
    area += lastX * y - x * lastY;
    source[at >> 1] = i;
    raw[at++] = place.x0 + x * place.scale;
    raw[at++] = place.y1 - y * place.scale;
    lastX = x;
    lastY = y;
  }
  const thickness = Math.abs(area) / 2 / Math.max(round, 1e-9);
  const own = Math.min(s.hold, place.scale * Math.max(OF_PIXEL, OF_THICKNESS * thickness));
  const points = raw.subarray(0, at);
  const ease = s.faint && c.steep ? easeOf(c.steep, source.subarray(0, at >> 1), own / place.scale) : undefined;
  return {
    raw: points,
    smooth: smoothed(points, true, noise * place.scale, place.scale, own),
    ease,
    closed: true,
    hold: own,
  };
}

/** Greys are told from each other by no less than this: two of 255 steps. */
const TELLS = 2 / 255;
/** However faint an edge, the fit strays no farther from it than so many pixels. */
const FAINTEST = 1;
/** Points on either side that tell how faint an edge is. */
const AROUND = 3;

/**
 * What share of its squared distance from the fit counts at each point: where the grey changes by s a pixel, an edge is
 * known to {@link TELLS} / s pixels and no better.
 * @returns nothing where the whole edge is known within the hold
 * @param source which of the traced points these are
 */
function easeOf(steep: Float32Array, source: Int32Array, hold: number): Float64Array | undefined {
  const n = source.length;
  const limit = TELLS / hold;
  if (!source.some((i) => steep[i] < limit)) return undefined;
  return Float64Array.from({ length: n }, (_, i) => {
    let sum = 0;
    for (let d = -AROUND; d <= AROUND; d++) sum += steep[source[(i + d + n) % n]];
    const known = Math.min(FAINTEST, (TELLS * (2 * AROUND + 1)) / sum);
    return known > hold ? (hold / known) ** 2 : 1;
  });
}
