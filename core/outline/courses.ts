import { crossingEdges } from "../geometry/crossing.ts";
import { GrowingF64, GrowingI32, picked } from "../growing.ts";
import { readContour, type Shape } from "../geometry/shape.ts";
import { Problem, type Progress } from "../problem.ts";
import { findCorners, sharpenCorners } from "./corners.ts";
import { type Course, eachPoint, type Fitted, joined, measured, spacingOf } from "./course.ts";
import { FitWriter, fitContour, fitStretch, type Pair } from "./fit.ts";

/**
 * How a point of a course is treated: every level keeps nearer to the picture's own edge than the one before, at this
 * share of the hold; the last one is the edge itself.
 */
const SHARE = [1, 0.25];
const RAW = SHARE.length;
/** Points on either side that give a corner its direction: 4 points are about 3 pixels. */
const CORNER_ARM = 4;
/** Points this many spacings from a crossing give way at first, and how much farther each round after it. */
const GIVES_WAY = 4;
const FARTHER = 1.5;
/** After so many rounds courses that still cross take their raw points all along; after so many more all courses do. */
const LOCAL_ROUNDS = 12;
const WHOLE_ROUNDS = 12;

/**
 * A place where something fitted is not clear: a course, its segment and where; the whole course where it came to
 * nothing.
 */
interface Place {
  course: number;
  segment: number;
  x: number;
  y: number;
}

/**
 * Fits every course within its hold so that all of them together are sound as cuts read them. Where fitted segments
 * cross or touch, the points nearby are held four times closer, then taken as the picture gives them, farther and
 * farther along until nothing crosses: raw courses never do, so this ends.
 * @returns contour k is course k, open ones ending where their last segment ends; and the largest distance of a raw
 * point from its segment, mm
 */
export function fitCourses(
  courses: readonly Course[],
  cornerAngle: number,
  progress: Progress,
): { shape: Shape; maxDeviation: number } {
  const n = courses.length;
  const levels: (Uint8Array | null)[] = new Array(n).fill(null);
  const fitted: Fitted[] = new Array(n);
  let changed: Uint8Array = new Uint8Array(n).fill(1);
  for (let round = 0; ; round++) {
    for (let k = 0; k < n; k++) {
      if ((k & 63) === 0 && round === 0) progress(k / n);
      if (changed[k]) fitted[k] = fitCourse(courses[k], levels[k], cornerAngle);
    }
    const places = unclear(courses, fitted, changed);
    if (places.length === 0) break;
    const reach = round < LOCAL_ROUNDS ? GIVES_WAY * FARTHER ** round : Infinity;
    changed = giveWay(courses, fitted, levels, places, reach);
    if (round >= LOCAL_ROUNDS + WHOLE_ROUNDS) changed = allRaw(courses, levels);
    // Nothing left that could give way: what is there is the picture's own edge.
    if (!changed.includes(1)) break;
  }
  let maxDeviation = 0;
  fitted.forEach(
    (f, k) => (maxDeviation = Math.max(maxDeviation, courses[k].ease ? measured(courses[k], f) : f.deviation)),
  );
  return { shape: joined(fitted), maxDeviation };
}

/** More points than this are noise and no drawing; fitting them would take minutes and help nobody. */
const MOST_POINTS = 1_000_000;

/** @throws Problem `too-busy` where there is more to trace than anyone could cut */
export function checkBusy(points: number): void {
  if (points <= MOST_POINTS) return;
  throw new Problem(
    "too-busy",
    `The outline has more than ${MOST_POINTS / 1e6} million points: that is noise rather than a drawing. Smooth the ` +
      "picture in the tone step, drop larger specks, or move the ink level.",
  );
}

function fitCourse(c: Course, level: Uint8Array | null, cornerAngle: number): Fitted {
  const out = new FitWriter();
  const deviation = c.closed ? fitClosed(c, level, cornerAngle, out) : fitOpen(c, level, cornerAngle, out);
  const { shape, first, ends } = out.take();
  const xy = new GrowingF64(8 * ends.length + 8);
  const segment = new GrowingI32(4 * ends.length + 4);
  readContour(shape, 0, c.closed, xy, segment);
  return { shape, ends, first, deviation: Math.max(deviation, out.worst), xy: xy.take(), segment: segment.take() };
}

/** @returns the largest distance of a point left out at a corner from the corner's legs, mm */
function fitClosed(c: Course, level: Uint8Array | null, cornerAngle: number, out: FitWriter): number {
  const n = c.raw.length / 2;
  const at = level ? placed(c, level) : c.smooth;
  const sharp = sharpenCorners(at, n, findCorners(at, n, CORNER_ARM, cornerAngle), c.hold, level);
  const { source, corners } = sharp;
  const m = sharp.xy.length / 2;
  const ease = c.ease && source ? picked(c.ease, source) : c.ease;
  const pair: Pair = { raw: at === c.raw ? sharp.xy : rawOf(c.raw, sharp.xy, source, corners), smooth: sharp.xy, ease };
  out.points = source;
  if (!level) fitContour(pair, m, corners, c.hold, out);
  else fitByLevels(pair, source ? Uint8Array.from(source, (i) => level[i]) : level, corners, c, out);
  return sharp.deviation;
}

function fitOpen(c: Course, level: Uint8Array | null, cornerAngle: number, out: FitWriter): number {
  const n = c.raw.length / 2;
  const at = level ? placed(c, level) : c.smooth;
  const corners = findCorners(at, n, CORNER_ARM, cornerAngle, false);
  fitByLevels({ raw: c.raw, smooth: at, ease: c.ease }, level ?? new Uint8Array(n), corners, c, out);
  return 0;
}

/** Where a course's points lie: raw ones as the picture gives them, the others with noise averaged out. */
function placed(c: Course, level: Uint8Array): Float64Array {
  if (c.raw === c.smooth) return c.raw;
  const at = c.smooth.slice();
  for (let i = 0; i < level.length; i++)
    if (level[i] === RAW) {
      at[2 * i] = c.raw[2 * i];
      at[2 * i + 1] = c.raw[2 * i + 1];
    }
  return at;
}

/** The raw points that go with sharpened ones; a corner put back is where it was put. */
function rawOf(
  raw: Float64Array,
  sharp: Float64Array,
  source: Int32Array | null,
  corners: readonly number[],
): Float64Array {
  if (!source) return raw;
  const out = new Float64Array(sharp.length);
  for (let i = 0; i < source.length; i++) {
    out[2 * i] = raw[2 * source[i]];
    out[2 * i + 1] = raw[2 * source[i] + 1];
  }
  for (const i of corners) out.set(sharp.subarray(2 * i, 2 * i + 2), 2 * i);
  return out;
}

/**
 * Stretches of one level each, one after the other. A raw stretch is drawn through all of its points; others are fitted
 * from the last point of the stretch before, where that is raw, to the first point of the one behind.
 */
function fitByLevels(
  p: Pair,
  level: Uint8Array,
  corners: readonly number[],
  { closed, hold }: Course,
  out: FitWriter,
): void {
  const n = level.length;
  let start = 0;
  if (closed) while (start < n && level[start] === level[(start + n - 1) % n]) start++;
  if (start === n) {
    if (level[0] !== RAW) return fitContour(p, n, corners, hold * SHARE[level[0]], out);
    start = 0;
  }
  const at = (i: number): number => (start + i + n) % n;
  // A ring comes back to its first point; an open run ends at its last.
  const last = closed ? n : n - 1;
  const isCorner = new Uint8Array(n);
  for (const i of corners) isCorner[i] = 1;
  let from = closed && level[at(-1)] === RAW && level[at(0)] !== RAW ? -1 : 0;
  const goal = from + last;
  out.begin(p.smooth[2 * at(from)], p.smooth[2 * at(from) + 1], at(from));
  let i = 0;
  while (from < goal) {
    const own = level[at(i)];
    let end = i + 1;
    while (end < n && level[at(end)] === own) end++;
    let to = own === RAW ? end - 1 : end;
    if (end === n || to > goal) to = goal;
    if (own === RAW) for (let q = from + 1; q <= to; q++) out.line(p.smooth[2 * at(q)], p.smooth[2 * at(q) + 1], at(q));
    else if (to > from) fitStretch(p, n, at(from), to - from + 1, isCorner, hold * SHARE[own], out);
    from = to;
    i = end;
  }
}

/**
 * Where courses, as cuts will read them, are not sound: see `unsoundPlaces`. Open ones may share the places they end
 * at.
 */
function unclear(courses: readonly Course[], fitted: readonly Fitted[], changed: Uint8Array): Place[] {
  const total = fitted.reduce((s, f) => s + f.segment.length, 0);
  const xy = new Float64Array(2 * total);
  const next = new Int32Array(total).fill(-1);
  const run = new Int32Array(total);
  const segment = new Int32Array(total);
  const ends = courses.every((c) => c.closed) ? undefined : new Uint8Array(total);
  const places: Place[] = [];
  let at = 0;
  fitted.forEach((f, k) => {
    const m = f.segment.length;
    if (m < (courses[k].closed ? 3 : 2)) {
      // All of it fell onto one line or point.
      if (changed[k]) places.push({ course: k, segment: -1, x: 0, y: 0 });
      return;
    }
    xy.set(f.xy, 2 * at);
    segment.set(f.segment, at);
    run.fill(k, at, at + m);
    for (let i = 0; i + 1 < m; i++) next[at + i] = at + i + 1;
    if (courses[k].closed) next[at + m - 1] = at;
    else ends![at] = ends![at + m - 1] = 1;
    at += m;
  });
  const pairs = crossingEdges({ xy: xy.subarray(0, 2 * at), next: next.subarray(0, at), run, ends }, changed);
  for (const i of pairs) {
    const j = next[i];
    places.push({
      course: run[i],
      segment: segment[j],
      x: (xy[2 * i] + xy[2 * j]) / 2,
      y: (xy[2 * i + 1] + xy[2 * j + 1]) / 2,
    });
  }
  return places;
}

/**
 * Raises the level of points near unclear places, one level each, at least one point for every place that has any left.
 * @param reach how far from its place a point gives way, in spacings of the course's points
 * @returns which courses have changed
 */
function giveWay(
  courses: readonly Course[],
  fitted: readonly Fitted[],
  levels: (Uint8Array | null)[],
  places: readonly Place[],
  reach: number,
): Uint8Array {
  const changed = new Uint8Array(courses.length);
  const raised = new Map<number, Set<number>>();
  for (const p of places) {
    const { raw, closed } = courses[p.course];
    const n = raw.length / 2;
    const level = (levels[p.course] ??= new Uint8Array(n));
    const marks = raised.get(p.course) ?? new Set<number>();
    raised.set(p.course, marks);
    const far2 = p.segment < 0 ? Infinity : (reach * spacingOf(raw, closed)) ** 2;
    let nearest = -1;
    let least = Infinity;
    let any = false;
    eachPoint(fitted[p.course], n, reach === Infinity ? -1 : p.segment, (i) => {
      if (level[i] === RAW) return;
      const d2 = (raw[2 * i] - p.x) ** 2 + (raw[2 * i + 1] - p.y) ** 2;
      if (d2 <= far2) {
        marks.add(i);
        any = true;
      } else if (d2 < least) {
        least = d2;
        nearest = i;
      }
    });
    if (!any && nearest >= 0) marks.add(nearest);
  }
  for (const [k, marks] of raised) {
    for (const i of marks) levels[k]![i] = reach === Infinity ? RAW : levels[k]![i] + 1;
    if (marks.size > 0) changed[k] = 1;
  }
  return changed;
}

function allRaw(courses: readonly Course[], levels: (Uint8Array | null)[]): Uint8Array {
  const changed = new Uint8Array(courses.length);
  courses.forEach((c, k) => {
    if (levels[k]?.every((l) => l === RAW)) return;
    levels[k] = new Uint8Array(c.raw.length / 2).fill(RAW);
    changed[k] = 1;
  });
  return changed;
}
