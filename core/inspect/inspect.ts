import type { Finding, Inspected, Rule } from "./finding.ts";
import { brokenRim } from "./rules/broken-rim.ts";
import { clamps } from "./rules/clamps.ts";
import { coarsePicture } from "./rules/coarse-picture.ts";
import { cutOutside } from "./rules/cut-outside.ts";
import { cutterHeight } from "./rules/cutter-height.ts";
import { depthAgainstStock } from "./rules/depth-against-stock.ts";
import { duplicateCuts } from "./rules/duplicate-cuts.ts";
import { droppedSpecks } from "./rules/dropped-specks.ts";
import { finiteMoves } from "./rules/finite-moves.ts";
import { glow } from "./rules/glow.ts";
import { unwritten } from "./rules/unwritten.ts";
import { leftOut } from "./rules/left-out.ts";
import { leftStanding } from "./rules/left-standing.ts";
import { load } from "./rules/load.ts";
import { loosePieces } from "./rules/loose-pieces.ts";
import { betweenSlats, machineTravel, nameLetters, programLength, zeroHabit } from "./rules/machine.ts";
import { mendedOutline } from "./rules/mended-outline.ts";
import { noFloor } from "./rules/no-floor.ts";
import { offStock } from "./rules/off-stock.ts";
import { order } from "./rules/order.ts";
import { planNotes } from "./rules/plan-notes.ts";
import { staleProgram } from "./rules/stale-program.ts";
import { sweptMoves } from "./rules/swept-moves.ts";
import { thinStrokes } from "./rules/thin-strokes.ts";

/** Every rule; one line each. */
const RULES: readonly Rule[] = [
  finiteMoves,
  cutOutside,
  sweptMoves,
  clamps,
  machineTravel,
  offStock,
  brokenRim,
  depthAgainstStock,
  noFloor,
  cutterHeight,
  order,
  loosePieces,
  leftStanding,
  thinStrokes,
  duplicateCuts,
  coarsePicture,
  glow,
  droppedSpecks,
  mendedOutline,
  leftOut,
  unwritten,
  load,
  zeroHabit,
  programLength,
  nameLetters,
  betweenSlats,
  planNotes,
  staleProgram,
];

const ORDER = { stop: 0, warning: 1, note: 2 };

/** All findings, gravest first. A job that could not be built has the reason as its first. */
export function inspect(i: Inspected): Finding[] {
  const { problem } = i.build;
  const first: Finding[] = problem ? [{ code: problem.code, severity: "stop", message: problem.message }] : [];
  return [...first, ...gravestFirst(RULES.flatMap((r) => r(i)))];
}

const gravestFirst = (all: Finding[]): Finding[] => all.sort((a, b) => ORDER[a.severity] - ORDER[b.severity]);

/** What was found in the same build when nothing was known of its revision, now that this is. */
export const inspectAgain = (found: readonly Finding[], of: Pick<Inspected, "revision" | "written">): Finding[] =>
  gravestFirst([...found, ...staleProgram(of)]);
