import { Problem, type Progress, noProgress } from "../problem.ts";
import { flatten, type Shape, ShapeBuilder, STRIDE } from "../geometry/shape.ts";
import { contourArea, type Contours } from "./contours.ts";
import { findCorners, sharpenCorners } from "./corners.ts";
import { crossingPlaces } from "./crossing.ts";
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
  /** the picture's edges are steps of whole pixels: they are smoothed first, within half a pixel */
  hard?: boolean;
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
/** How often contours that cross after fitting are fitted again, keeping their points there, before all of their own points serve. */
const REFITS = 4;
/** Points this near to a crossing are kept, px. */
const NEAR_CROSSING = 4;

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

/** More points than this are noise and no drawing; fitting them would take minutes and help nobody. */
const MOST_POINTS = 3_000_000;

/** @throws Problem `too-busy` where there is more to trace than anyone could cut */
export function checkBusy(points: number, pieces: number): void {
  if (points > MOST_POINTS)
    throw new Problem("too-busy", `The outline has ${(points / 1e6).toFixed(1)} million points in ${pieces.toLocaleString("en")} pieces: that is noise rather than a drawing. Smooth the picture in the tone step, drop larger specks, or move the ink level.`);
}

/**
 * The outline of the ink: contours above the least size, fitted within `hold`, in mm.
 * Contours that would cross each other after fitting keep their own points there.
 * @throws Problem `too-busy`
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
  let total = 0;
  for (let k = 0; k < n; k++) if (keep[k]) total += c.starts[k + 1] - c.starts[k];
  checkBusy(total, kept);
  const points: Float64Array[] = [];
  const parents: number[] = [];
  for (let k = 0; k < n; k++) {
    if (!keep[k]) continue;
    points.push(toMillimetres(c, k, place, s.hard ?? false));
    parents.push(c.parent[k] < 0 ? -1 : index[c.parent[k]]);
  }

  const runs = points.map((xy) => sharpened(xy, s.hold, s.cornerAngle));
  let built: ReturnType<typeof build> = { fitted: [], shape: null as never };
  for (let round = 0; ; round++) {
    built = build(runs, parents, s.hold, built.fitted, progress);
    const crossed = round > REFITS ? [] : crossingPlaces(flatten(built.shape, Math.max(0.002, s.hold / 8)));
    if (crossed.length === 0) break;
    const near = (NEAR_CROSSING * place.scale) ** 2;
    const helped = new Set<number>();
    for (const run of new Set(crossed.map((c) => c.run))) runs[run] = { ...runs[run], pinned: new Set(runs[run].pinned) };
    for (const { run, x, y } of crossed) if (pin(runs[run], x, y, near)) helped.add(run);
    for (const { run } of crossed) if (round >= REFITS - 1 || !helped.has(run)) runs[run] = { ...runs[run], xy: points[run], corners: [], own: true, deviation: 0 };
  }
  const { shape } = built;
  let maxDeviation = 0;
  for (const f of built.fitted) maxDeviation = Math.max(maxDeviation, f.deviation);
  return { shape, nodes: shape.kinds.length, maxDeviation, dropped, droppedAt: Float64Array.from(droppedAt) };
}

/** A contour ready to fit. */
interface Run {
  /** x, y by turns, corners put back */
  xy: Float64Array;
  corners: number[];
  /** points that stay nodes, because another contour runs right beside them */
  pinned: Set<number>;
  /** its own points serve: nothing smoother keeps clear of its neighbours */
  own: boolean;
  /** distance of points left out at corners */
  deviation: number;
}

function sharpened(xy: Float64Array, hold: number, cornerAngle: number): Run {
  const n = xy.length / 2;
  const sharp = sharpenCorners(xy, n, findCorners(xy, n, CORNER_ARM, cornerAngle), hold);
  return { xy: sharp.xy, corners: sharp.corners, pinned: new Set(), own: false, deviation: sharp.deviation };
}

/** Keeps the contour's points near a place as they are. @returns whether any was not kept yet */
function pin(r: Run, x: number, y: number, near2: number): boolean {
  let any = false;
  for (let i = 0; i < r.xy.length / 2; i++) {
    if ((r.xy[2 * i] - x) ** 2 + (r.xy[2 * i + 1] - y) ** 2 > near2 || r.pinned.has(i)) continue;
    r.pinned.add(i);
    any = true;
  }
  return any;
}

/** One contour as segments, and how far it strays. */
interface Fitted {
  from: Run;
  shape: Shape;
  deviation: number;
}

function fitRun(r: Run, hold: number): Fitted {
  const out = new ShapeBuilder(r.own ? r.xy.length / 2 : 32);
  const { xy, corners, pinned } = r;
  const n = xy.length / 2;
  let { deviation } = r;
  if (r.own) {
    out.begin(xy[0], xy[1], -1);
    for (let i = 1; i <= n; i++) out.line(xy[2 * (i % n)], xy[2 * (i % n) + 1]);
  } else {
    const fixed = pinned.size === 0 ? corners : [...new Set([...corners, ...pinned])].sort((a, b) => a - b);
    deviation = Math.max(deviation, fitContour(xy, n, fixed, -1, hold, out));
  }
  return { from: r, shape: out.take(), deviation };
}

/** Contours put together; the ones that have not changed since the last time are as they were. */
function build(runs: readonly Run[], parents: readonly number[], hold: number, before: readonly Fitted[], progress: Progress): { fitted: Fitted[]; shape: Shape } {
  const fitted = runs.map((r, k) => {
    if ((k & 63) === 0) progress(k / runs.length);
    return before[k]?.from === r ? before[k] : fitRun(r, hold);
  });
  const total = fitted.reduce((s, f) => s + f.shape.kinds.length, 0);
  const shape: Shape = { kinds: new Uint8Array(total), nodes: new Float64Array(STRIDE * total), origin: new Float64Array(2 * runs.length), starts: new Int32Array(runs.length + 1), parent: Int32Array.from(parents) };
  let at = 0;
  fitted.forEach(({ shape: s }, k) => {
    shape.kinds.set(s.kinds, at);
    shape.nodes.set(s.nodes, STRIDE * at);
    shape.origin.set(s.origin, 2 * k);
    at += s.kinds.length;
    shape.starts[k + 1] = at;
  });
  return { fitted, shape };
}

/** Rounds of averaging that take the steps out of a hard edge, and how far a point may move, px. */
const STEP_ROUNDS = 8;
const STEP_REACH = 0.5;

/** Points of contour k on the stock. Neighbours closer than a hundredth of a pixel are merged: they carry no direction. */
function toMillimetres(c: Contours, k: number, place: Placement, hard: boolean): Float64Array {
  const s = c.starts[k];
  const e = c.starts[k + 1];
  const xy = hard ? withoutSteps(c.xy.subarray(2 * s, 2 * e)) : c.xy.subarray(2 * s, 2 * e);
  const n = e - s;
  const out = new Float64Array(2 * n);
  let at = 0;
  let lastX = xy[2 * n - 2];
  let lastY = xy[2 * n - 1];
  for (let i = 0; i < n; i++) {
    const x = xy[2 * i];
    const y = xy[2 * i + 1];
    if (Math.abs(x - lastX) + Math.abs(y - lastY) < 0.01 && n > 8) continue;
    out[at++] = place.x0 + x * place.scale;
    out[at++] = place.y1 - y * place.scale;
    lastX = x;
    lastY = y;
  }
  return out.subarray(0, at);
}

/** A closed contour averaged with its neighbours, no point farther than STEP_REACH from where it was. */
function withoutSteps(xy: Float64Array): Float64Array {
  const n = xy.length / 2;
  if (n < 12) return xy;
  let from = xy.slice();
  let to = new Float64Array(2 * n);
  for (let round = 0; round < STEP_ROUNDS; round++) {
    for (let i = 0; i < n; i++) {
      const p = 2 * (i > 0 ? i - 1 : n - 1);
      const q = 2 * (i + 1 < n ? i + 1 : 0);
      for (let d = 0; d < 2; d++) {
        const v = (from[p + d] + 2 * from[2 * i + d] + from[q + d]) / 4;
        to[2 * i + d] = Math.max(xy[2 * i + d] - STEP_REACH, Math.min(xy[2 * i + d] + STEP_REACH, v));
      }
    }
    [from, to] = [to, from];
  }
  return from;
}
