import { cutAlong, type Loop } from "../../toolpath/loops.ts";
import type { ToolpathWriter } from "../../toolpath/toolpath.ts";
import { type Tab, tabLimit } from "../contour/tabs.ts";
import { slopeOf } from "../fields.ts";
import type { CutContext } from "../kind.ts";
import type { ProfileSettings } from "./fields.ts";

/** What every pass along a contour keeps to. */
export interface PassShape {
  /** fall over run when sinking along the contour */
  slope: number;
  /** half of what a tab takes of the path: its own width and the cutter's; mm */
  half: number;
  /** z of a tab's top */
  top: number;
  /** how steeply the path climbs over a tab, rise over run */
  tabSlope: number;
}

/** Walls of a square tab are this steep, rise over run. */
const SQUARE_SLOPE = 20;

export const shapeOf = ({ cutter, stock }: CutContext, s: ProfileSettings): PassShape => ({
  slope: slopeOf(s),
  half: (s.tabWidth + cutter.diameter) / 2,
  top: -stock.thickness + s.tabHeight,
  tabSlope: s.tabShape === "square" ? SQUARE_SLOPE : 1,
});

/**
 * From distance `at` along the loop: sink from z0 to z1, then once round and `overlap` mm beyond, over the tabs.
 * @returns where it ends, as a distance along the loop
 */
export function pass(
  w: ToolpathWriter,
  l: Loop,
  at: number,
  z0: number,
  z1: number,
  shape: PassShape,
  tabs: readonly Tab[],
  overlap = 0,
): number {
  const n = l.x.length - 1;
  const total = l.s[n];
  if (!(total > 1e-6)) return at;
  const rampLength = (z0 - z1) / shape.slope;
  const end = at + rampLength + total + overlap;
  const marks: number[] = [at, at + rampLength, end];
  for (let turn = Math.floor(at / total); turn * total < end; turn++)
    for (let i = 0; i < n; i++) marks.push(turn * total + l.s[i]);
  const wall = shape.top - z1;
  if (wall > 0)
    for (let turn = Math.floor(at / total) - 1; turn * total < end; turn++)
      for (const t of tabs)
        for (const d of [
          -shape.half - wall / shape.tabSlope,
          -shape.half,
          shape.half,
          shape.half + wall / shape.tabSlope,
        ])
          marks.push(turn * total + t.at + d);
  marks.sort((a, b) => a - b);
  const along = marks.filter((m, i) => m >= at && m <= end && (i === 0 || m - marks[i - 1] > 1e-7));
  const x = new Float64Array(along.length);
  const y = new Float64Array(along.length);
  const z = new Float64Array(along.length);
  let seg = 0;
  let lastTurn = NaN;
  for (let i = 0; i < along.length; i++) {
    const turn = Math.floor(along[i] / total);
    const s = along[i] - turn * total;
    if (turn !== lastTurn) seg = 0;
    lastTurn = turn;
    while (seg < n - 1 && l.s[seg + 1] < s) seg++;
    const len = l.s[seg + 1] - l.s[seg];
    const f = len > 0 ? Math.min(1, (s - l.s[seg]) / len) : 0;
    x[i] = l.x[seg] + f * (l.x[seg + 1] - l.x[seg]);
    y[i] = l.y[seg] + f * (l.y[seg + 1] - l.y[seg]);
    const plain = rampLength > 0 ? Math.max(z1, z0 - ((along[i] - at) * (z0 - z1)) / rampLength) : z1;
    z[i] = wall > 0 ? Math.max(plain, tabLimit(tabs, total, shape.half, shape.top, z1, s, shape.tabSlope)) : plain;
  }
  for (let i = 0; i + 1 < along.length;) {
    const j = evenly(along, z, i, total);
    cutAlong(w, x, y, i, j, z[i] === z[j] ? z[i] : z);
    i = j;
  }
  return (at + rampLength) % total;
}

/** Slopes this near to each other are one: rounding. */
const ALIKE = 1e-6;

/**
 * The last of the points after the i-th to which the path is level or rises or falls evenly, within one turn: whether
 * an arc holds points is told of less than that.
 * @param along how far each point lies along the loop's turns, whose length is `total`; mm
 */
function evenly(along: readonly number[], z: Float64Array, i: number, total: number): number {
  const slope = (k: number) => (z[k + 1] - z[k]) / (along[k + 1] - along[k]);
  const isLevel = z[i + 1] === z[i];
  let j = i + 1;
  while (j + 1 < along.length && (isLevel || along[j + 1] - along[i] < total)) {
    const goesOn = isLevel ? z[j + 1] === z[j] : Math.abs(slope(j) - slope(i)) < ALIKE;
    if (!goesOn) break;
    j++;
  }
  return j;
}
