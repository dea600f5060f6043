import type { HeightField } from "../../height/field.ts";
import type { Tips } from "../../height/tips.ts";
import { noProgress, type Progress } from "../../problem.ts";
import type { Ground, Passed } from "./ground.ts";
import { hypot } from "../../hypot.ts";

/** A line over the board that a cutter may follow: straight pieces, each with as many places on it. */
export interface Row {
  /** corners, mm */
  x: Float64Array;
  y: Float64Array;
  /** places from corner to corner */
  each: number;
  /** from place to place, mm, at most */
  step: number;
  /** how far its place 0 lies along all rows, mm, and how far on each next one: neighbours are alongside there */
  u: number;
  du: number;
  /** the lowest tip at each of its places, mm; Infinity where the cutter may not pass */
  lowest: Float32Array;
}

/** Where a place of a row lies, mm; between places too. */
export function placeOn({ x, y, each }: Pick<Row, "x" | "y" | "each">, i: number): { x: number; y: number } {
  const k = Math.max(0, Math.min(x.length - 2, Math.floor(i / each)));
  const share = i / each - k;
  return { x: x[k] + share * (x[k + 1] - x[k]), y: y[k] + share * (y[k + 1] - y[k]) };
}

/** Rows at an angle over the ground of a cut, so many mm apart, each clipped to where the cutter may pass. */
export function rowsOver(ground: Ground, apart: number, degrees: number, progress: Progress = noProgress): Row[] {
  const { passed, surface, tips } = ground;
  const { dx, dy, first, pitch, count } = rowsAcross(passed, apart, degrees);
  // Coarse samples are the highest of several: places over them would close slots that are open between them.
  const isAlong = ground.isFine && Math.min(Math.abs(dx), Math.abs(dy)) < ALONG;
  const step = isAlong ? surface.cell : placesApart(ground);
  const rows: Row[] = [];
  for (let k = 0; k <= count; k++) {
    progress(k / (count + 1));
    const v = first + k * pitch;
    const clipped = clip(passed, { x: -v * dy, y: v * dx }, { dx, dy });
    if (!clipped) continue;
    const [from, to] = clipped;
    const u = isAlong ? overSamples(surface, from, to, { dx, dy }) : from;
    const each = Math.max(1, Math.floor((to - u) / step + 1e-9));
    const end = u + each * step;
    const x = Float64Array.of(-v * dy + u * dx, -v * dy + end * dx);
    const y = Float64Array.of(v * dx + u * dy, v * dx + end * dy);
    rows.push(withTips({ x, y, each, step, u, du: step }, tips, to > u ? passed : null));
  }
  return rows;
}

/**
 * Where the places of a row along the samples begin: at `from` mm along it, or less than a step farther. They lie over
 * samples, as the highest tips do: between them a cutter would pass below those.
 */
function overSamples({ x0, y0, cell }: HeightField, from: number, to: number, d: { dx: number; dy: number }): number {
  const sample = (x0 + cell / 2) * d.dx + (y0 + cell / 2) * d.dy;
  const over = sample + cell * Math.ceil((from - sample) / cell - NEARLY);
  return over < to ? over : from;
}

/** A row whose direction differs from the samples' by no more runs along them. */
const ALONG = 1e-9;
/** Places of rows that run otherwise lie so many times as densely where a point's tips have a peak at every sample. */
const OVER_PEAKS = 4;
const placesApart = ({ surface, isPointed }: Ground): number => surface.cell / (isPointed ? OVER_PEAKS : 1);

/**
 * Where rows at an angle lie across a rectangle: as many as keep the distance, the first and the last on its own sides.
 */
function rowsAcross(passed: Passed, apart: number, degrees: number) {
  const [dx, dy] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
  const across = cornersOf(passed).map(({ x, y }) => y * dx - x * dy);
  const [first, last] = [Math.min(...across), Math.max(...across)];
  const count = Math.max(1, Math.ceil((last - first) / apart - 1e-9));
  return { dx, dy, first, pitch: (last - first) / count, count };
}

/** Whether a sample of a ground lies on one of the rows over it: no other is nearer to the row there. */
export function onRows({ passed, surface }: Ground, apart: number, degrees: number): (x: number, y: number) => boolean {
  const { dx, dy, first, pitch } = rowsAcross(passed, apart, degrees);
  const near = (surface.cell / 2) * (Math.abs(dx) + Math.abs(dy));
  return (x, y) => {
    const v = y * dx - x * dy - first;
    return Math.abs(v - pitch * Math.round(v / pitch)) <= near;
  };
}

/** Rings about the middle of where a cutter may pass, from the innermost outward, so many mm apart. */
export function ringsOver(ground: Ground, apart: number, progress: Progress = noProgress): Row[] {
  const { passed, tips } = ground;
  const step = placesApart(ground);
  const { middle, reach } = roundOf(passed);
  const rows: Row[] = [];
  for (let r = apart / 2; r < reach + apart; r += apart) {
    progress(r / (reach + apart));
    const sides = Math.max(LEAST_SIDES, Math.ceil((2 * Math.PI * r) / sideFor(r)));
    const turn = (k: number) => (2 * Math.PI * k) / sides;
    const x = Float64Array.from({ length: sides + 1 }, (_, k) => middle.x + r * Math.cos(turn(k)));
    const y = Float64Array.from({ length: sides + 1 }, (_, k) => middle.y + r * Math.sin(turn(k)));
    const each = Math.max(1, Math.ceil((2 * r * Math.sin(Math.PI / sides)) / step));
    // Alongside by their angle, as far apart as on the outermost.
    const row = { x, y, each, step, u: 0, du: (2 * Math.PI * reach) / (sides * each) };
    rows.push(withTips(row, tips, passed));
  }
  return rows;
}

/** One row from the middle of where a cutter may pass outward, gaining `apart` mm with each turn. */
export function spiralOver(ground: Ground, apart: number, progress: Progress = noProgress): Row[] {
  const { passed, tips } = ground;
  const step = placesApart(ground);
  const { middle, reach } = roundOf(passed);
  const [xs, ys]: number[][] = [[], []];
  for (let turn = 0; ;) {
    const r = (apart * turn) / (2 * Math.PI);
    xs.push(middle.x + r * Math.cos(turn));
    ys.push(middle.y + r * Math.sin(turn));
    if (r > reach + apart) break;
    turn += Math.min((2 * Math.PI) / LEAST_SIDES, sideFor(r) / Math.max(r, apart));
  }
  // The outermost side, which lies up to a turn farther out, is the longest.
  const each = Math.max(1, Math.ceil(sideFor(reach + 2 * apart) / step));
  const row = { x: Float64Array.from(xs), y: Float64Array.from(ys), each, step, u: 0, du: step };
  return [withTips(row, tips, passed, progress)];
}

/** A round row is drawn by straight sides that lie no farther inside it than this, mm. */
const SAGITTA = 0.01;
const LEAST_SIDES = 12;
/** How long the sides of a circle of radius r may be: s = √(8·r·sagitta). */
const sideFor = (r: number): number => Math.sqrt(8 * Math.max(r, SAGITTA) * SAGITTA);

const cornersOf = (b: Passed) => [b.x0, b.x1].flatMap((x) => [b.y0, b.y1].map((y) => ({ x, y })));
const roundOf = (b: Passed) => ({
  middle: { x: (b.x0 + b.x1) / 2, y: (b.y0 + b.y1) / 2 },
  reach: hypot(b.x1 - b.x0, b.y1 - b.y0) / 2,
});

/** A row with the lowest tips along it. @param passed where the cutter may pass; null for a row of one place */
function withTips(row: Omit<Row, "lowest">, tips: Tips, passed: Passed | null, progress?: Progress): Row {
  const places = passed ? (row.x.length - 1) * row.each + 1 : 1;
  return { ...row, lowest: tipsAlong(tips, row, places, passed, progress) };
}

/** After so many places of a row it is told how far it is. */
const PLACES_TOLD = 4096;

/** Beyond where the cutter may pass by no more than this is rounding, mm. */
const NEARLY = 1e-6;

/** The lowest tips at places of a row, mm. */
export function tipsAlong(
  tips: Tips,
  row: Pick<Row, "x" | "y" | "each">,
  places: number,
  passed: Passed | null = null,
  progress: Progress = noProgress,
): Float32Array {
  const out = new Float32Array(places);
  for (let i = 0; i < places; i++) {
    const { x, y } = placeOn(row, i);
    const isBeyond = passed !== null && Math.max(passed.x0 - x, x - passed.x1, passed.y0 - y, y - passed.y1) > NEARLY;
    out[i] = isBeyond ? Infinity : tips.at(x, y);
    if (i % PLACES_TOLD === 0) progress(i / places);
  }
  return out;
}

/** The part of a line inside a rectangle, as how far along it; null where there is none. */
function clip(box: Passed, at: { x: number; y: number }, d: { dx: number; dy: number }): [number, number] | null {
  let [from, to] = [-Infinity, Infinity];
  for (const [p, q, low, high] of [
    [at.x, d.dx, box.x0, box.x1],
    [at.y, d.dy, box.y0, box.y1],
  ]) {
    if (Math.abs(q) < 1e-9) {
      if (p < low - 1e-9 || p > high + 1e-9) return null;
      continue;
    }
    const [a, b] = [(low - p) / q, (high - p) / q];
    from = Math.max(from, Math.min(a, b));
    to = Math.min(to, Math.max(a, b));
  }
  return from <= to ? [from, to] : null;
}
