import type { Progress } from "../../problem.ts";
import type { ToolpathWriter } from "../../toolpath/toolpath.ts";
import type { CutInputs, HEIGHT_ART } from "../kind.ts";
import { follow, type Following } from "./follow.ts";
import { groundFor } from "./ground.ts";
import type { Row } from "./rows.ts";
import { inOrder, runsOf } from "./runs.ts";

/** Lines of a first look are at least so many grains apart. */
const GRAINS_APART = 2;

/** How far apart rows are cut, mm: as asked, or for a first look farther. */
export const apartFor = ({ grain }: Pick<CutInputs, "grain">, { stepover }: { stepover: number }): number =>
  Math.max(stepover, GRAINS_APART * (grain ?? 0));

/** Finding the lowest tips along rows is so much of the work; cutting along them is the rest. */
const FOUND = 0.8;

/** How far a cut is whose rows are found so far, and one that is cut along them so far. */
export const finding =
  ({ progress }: Pick<CutInputs, "progress">): Progress =>
  (share) =>
    progress(FOUND * share);
export const cutting =
  ({ progress }: Pick<CutInputs, "progress">): Progress =>
  (share) =>
    progress(FOUND + (1 - FOUND) * share);

/** Rows to be cut, and how. */
export interface Passes {
  rows: readonly Row[];
  /** how far they lie apart, and how far past the board's edge they go, mm */
  apart: number;
  overrun: number;
  direction: "both" | "one";
  tolerance: number;
  /** whether something is to be cut at a place of a row */
  isCut(row: Row): (place: number) => boolean;
}

/** Rows whose ends lie farther apart than this many stepovers are lifted between. */
const JOINED = 4;

/** Cuts along rows, as low as the cutter may go, where something is to be cut. */
export function cutRows(
  w: ToolpathWriter,
  inputs: CutInputs<typeof HEIGHT_ART>,
  { rows, apart, overrun, direction, tolerance, isCut }: Passes,
  progress: Progress,
): void {
  const { tips } = groundFor(inputs, inputs.reads.art, inputs.cutter, overrun);
  const runs = rows.map((row) => runsOf(row, isCut(row)));
  const following: Following = { tips, tolerance, over: (lowest) => lowest };
  const order = inOrder(runs, JOINED * apart, direction === "one");
  const enter = (_: unknown, x: number, y: number, z: number) => {
    w.above(x, y);
    w.plunge(z);
    return true;
  };
  order.forEach((run, k) => {
    follow(w, run, following, enter);
    if ((k & 63) === 0) progress(k / order.length);
  });
}
