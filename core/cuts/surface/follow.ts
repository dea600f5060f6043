import type { Tips } from "../../height/tips.ts";
import type { ToolpathWriter } from "../../toolpath/toolpath.ts";
import { placeOn } from "./rows.ts";
import type { Gone } from "./runs.ts";
import { thinAbove } from "./thin.ts";
import { hypot } from "../../hypot.ts";

/** What following rows takes besides the moves. */
export interface Following {
  /** the lowest tips, at any place */
  tips: Tips;
  /** how far above the wanted tips a path may lie, mm */
  tolerance: number;
  /** the tip that is wanted where the lowest one is `lowest` */
  over(lowest: number): number;
}

/** Where the tip rises or falls faster than this, places are not dense enough: it is looked at between them too. */
const STEEP = 1.5;
/** So many parts of a step then. */
const PARTS = 8;
/** … but not where it rises straight, as along a cone: halfway no farther from that than this, mm. */
const STRAIGHT = 0.002;

/** A stretch of a row with the tip that is wanted along it; denser where that is steep. */
export interface Course {
  /** mm from its beginning */
  s: Float64Array;
  x: Float64Array;
  y: Float64Array;
  z: Float64Array;
  /** where its row turns, and its two ends: which of its places, rising */
  corners: number[];
}

/** The course of a run, the way it is gone. */
export function courseOf({ row, i0, i1, back }: Gone, { tips, over }: Following): Course {
  let course: Placed = { s: [], x: [], y: [], z: [], isCorner: [] };
  const add = (i: number, z: number): void => {
    const { x, y } = placeOn(row, i);
    const last = course.x.length - 1;
    const gone = last < 0 ? 0 : course.s[last] + hypot(x - course.x[last], y - course.y[last]);
    place(course, gone, x, y, z, i === i0 || i === i1 || i % row.each === 0);
  };
  const tip = (x: number, y: number): number => over(tips.at(x, y));
  /** Adds places between two while it is steep and not straight between them. */
  const addBetween = (a: number, za: number, b: number, zb: number): void => {
    if (Math.abs(b - a) * PARTS <= 1 || Math.abs(zb - za) <= STEEP * row.step * Math.abs(b - a)) return;
    const middle = (a + b) / 2;
    const at = placeOn(row, middle);
    const z = tip(at.x, at.y);
    if (Math.abs(z - (za + zb) / 2) <= STRAIGHT) return;
    addBetween(a, za, middle, z);
    add(middle, z);
    addBetween(middle, z, b, zb);
  };
  for (let k = 0; k <= i1 - i0; k++) {
    const i = back ? i1 - k : i0 + k;
    const z = over(row.lowest[i]);
    if (k > 0) addBetween(back ? i + 1 : i - 1, course.z[course.z.length - 1], i, z);
    add(i, z);
  }
  for (let pass = 0; pass < PASSES; pass++) {
    const finer = roundedOver(course, tip);
    if (finer === course) break;
    course = finer;
  }
  return {
    s: Float64Array.from(course.s),
    x: Float64Array.from(course.x),
    y: Float64Array.from(course.y),
    z: Float64Array.from(course.z),
    corners: cornersOf(course),
  };
}

/** A course as it grows. */
interface Placed {
  s: number[];
  x: number[];
  y: number[];
  z: number[];
  isCorner: boolean[];
}

function place(c: Placed, s: number, x: number, y: number, z: number, isCorner: boolean): void {
  c.s.push(s);
  c.x.push(x);
  c.y.push(y);
  c.z.push(z);
  c.isCorner.push(isCorner);
}

function cornersOf({ isCorner }: Placed): number[] {
  const out: number[] = [];
  for (let k = 0; k < isCorner.length; k++) if (isCorner[k]) out.push(k);
  return out;
}

/** Where a course bends down by more than this over a place, it is looked at beside the place too, mm. */
const BENT = 0.008;
/** So often, each time half as far. */
const PASSES = 3;

/**
 * A course with more places beside those over which it bends down: a line from place to place would pass below the
 * bend, by a quarter of it at most. The same where there are none.
 */
function roundedOver(c: Placed, tip: (x: number, y: number) => number): Placed {
  const bent = new Uint8Array(c.s.length);
  let isAny = false;
  for (let k = 1; k < c.s.length - 1; k++) {
    const share = (c.s[k] - c.s[k - 1]) / (c.s[k + 1] - c.s[k - 1]);
    if (c.z[k] - c.z[k - 1] - share * (c.z[k + 1] - c.z[k - 1]) <= BENT) continue;
    bent[k] = 1;
    isAny = true;
  }
  if (!isAny) return c;
  const out: Placed = { s: [], x: [], y: [], z: [], isCorner: [] };
  c.s.forEach((s, k) => {
    if (k > 0 && (bent[k - 1] || bent[k])) {
      const [x, y] = [(c.x[k - 1] + c.x[k]) / 2, (c.y[k - 1] + c.y[k]) / 2];
      place(out, (c.s[k - 1] + s) / 2, x, y, tip(x, y), false);
    }
    place(out, s, c.x[k], c.y[k], c.z[k], c.isCorner[k]);
  });
  return out;
}

/** Brings the cutter to the beginning of a course, at (x, y, z). @returns whether there is a way in */
export type Enter = (course: Course, x: number, y: number, z: number) => boolean;

/**
 * Cuts along a run; where it is not joined to the one before, `enter` brings the cutter to its beginning.
 * @returns whether it was cut: without a way in it is left out
 */
export function follow(w: ToolpathWriter, run: Gone, f: Following, enter: Enter): boolean {
  const course = courseOf(run, f);
  const { at, z } = thinned(course, f.tolerance);
  if (run.joined) across(w, course.x[0], course.y[0], z[0], run.row.step, f);
  else if (!enter(course, course.x[0], course.y[0], z[0])) return false;
  for (let q = 1; q < at.length; q++) w.to(course.x[at[q]], course.y[at[q]], z[q]);
  return true;
}

/** The places of a course that are gone to, corner by corner: between corners it is straight. */
function thinned({ s, z, corners }: Course, tolerance: number): { at: number[]; z: number[] } {
  if (corners.length < 2) return { at: [0], z: [z[0]] };
  const out = { at: [] as number[], z: [] as number[] };
  for (let k = 1; k < corners.length; k++) {
    const part = thinAbove(s, z, corners[k - 1], corners[k], tolerance);
    // A corner belongs to both of its sides: the higher of their ends holds for both.
    const at = out.at.length - 1;
    if (at >= 0) out.z[at] = Math.max(out.z[at], part.z[0]);
    out.at.push(...(at >= 0 ? part.at.slice(1) : part.at));
    out.z.push(...(at >= 0 ? part.z.slice(1) : part.z));
  }
  return out;
}

/** From where the cutter is to the beginning of the next row, over whatever lies between. */
function across(w: ToolpathWriter, x: number, y: number, z: number, step: number, f: Following): void {
  const [fromX, fromY, fromZ] = [w.x, w.y, w.z];
  const length = hypot(x - fromX, y - fromY);
  const n = Math.max(1, Math.ceil((PARTS * length) / step / 2));
  const s = Float64Array.from({ length: n + 1 }, (_, k) => (length * k) / n);
  const heights = s.map((_, k) => {
    if (k === 0) return fromZ;
    if (k === n) return z;
    return f.over(f.tips.at(fromX + ((x - fromX) * k) / n, fromY + ((y - fromY) * k) / n));
  });
  const { at, z: over } = thinAbove(s, heights, 0, n, f.tolerance);
  at.slice(1).forEach((k, q) => w.to(fromX + ((x - fromX) * k) / n, fromY + ((y - fromY) * k) / n, over[q + 1]));
}

/**
 * How far along a course a ramp may run that sinks by `drop` at its beginning: as far as two ways need, and no farther
 * than where a hill would keep it from coming down again; which of its places, 0 where there is no room at all.
 */
export function rampEnd(c: Course, drop: number, slope: number): number {
  let end = 0;
  while (end < c.s.length - 1 && c.s[end] < drop / slope / 2 && c.z[end + 1] - slope * c.s[end + 1] <= c.z[0]) end++;
  return end;
}

/**
 * Down to the beginning of a course along it, to and fro over its places up to `end`, no steeper than `slope` and never
 * below what is wanted there; the cutter ends where the course begins.
 * @param z0 where stock begins, mm
 */
export function rampInto(
  w: ToolpathWriter,
  c: Course,
  { tolerance }: Following,
  z0: number,
  slope: number,
  end: number,
): void {
  w.above(c.x[0], c.y[0]);
  if (z0 < 0) w.rapidTo(z0 + CLOSE);
  let z = Math.max(z0, c.z[0]);
  w.to(c.x[0], c.y[0], z);
  const there = Array.from({ length: end + 1 }, (_, q) => q);
  while (z > c.z[0])
    for (const order of [there, there.slice().reverse()]) {
      const gone = goneAlong(c, order);
      const heights = order.map((q, n) => {
        if (n > 0) z = Math.max(c.z[q], z - slope * (gone[n] - gone[n - 1]));
        return z;
      });
      goAlong(w, c, order, heights, tolerance);
    }
}

/** How far each of some places of a course, one after another along it, lies from the first of them, mm. */
const goneAlong = (c: Course, order: readonly number[]): number[] => order.map((q) => Math.abs(c.s[q] - c.s[order[0]]));

/** Along some places of a course, from the first of which the cutter comes, at these heights or a little above them. */
function goAlong(
  w: ToolpathWriter,
  c: Course,
  order: readonly number[],
  heights: readonly number[],
  tolerance: number,
): void {
  const { at, z } = thinAbove(goneAlong(c, order), heights, 0, order.length - 1, tolerance);
  at.slice(1).forEach((n, q) => w.to(c.x[order[n]], c.y[order[n]], z[q + 1]));
}

/** Where on a course a way in is looked for, from its beginning on: so many places. */
const WAYS_TRIED = 100;

/**
 * The rest of a course from the first of its places on where there is a way in, for one that has none at its beginning:
 * in a dip, say, whose sides are steeper than a ramp may be.
 * @param wayAt the way in at the beginning of such a rest, null where there is none
 * @returns which place it is, the rest from there, and the way
 */
export function wayInFarther<Way>(
  c: Course,
  wayAt: (rest: Course) => Way | null,
): { from: number; rest: Course; way: Way } | null {
  const n = c.s.length - 1;
  const tries = Math.min(n, WAYS_TRIED);
  for (let k = 1; k < tries; k++) {
    const from = Math.floor((k * n) / tries);
    const rest = {
      s: c.s.slice(from).map((s) => s - c.s[from]),
      x: c.x.subarray(from),
      y: c.y.subarray(from),
      z: c.z.subarray(from),
      corners: c.corners.filter((q) => q > from).map((q) => q - from),
    };
    const way = wayAt(rest);
    if (way !== null) return { from, rest, way };
  }
  return null;
}

/** From one place of a course back to its beginning, over all that is wanted on the way. */
export function backToBeginning(w: ToolpathWriter, c: Course, from: number, { tolerance }: Following): void {
  const order = Array.from({ length: from + 1 }, (_, k) => from - k);
  const heights = order.map((q) => c.z[q]);
  goAlong(w, c, order, heights, tolerance);
}

/** Rapids down end this far above stock that still stands, mm. */
const CLOSE = 0.5;
