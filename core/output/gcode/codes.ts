/**
 * Codes that change no coordinate: plane XY, no cutter compensation, paths followed exactly, feeds in a minute, lengths
 * without offset.
 */
export const PASSED = new Set([17, 40, 49, 50, 61, 61.1, 64, 69, 94, 91.1]);
/** Codes that a sentence is due for, since what they do is not in the program. */
export const REMARKED: Record<number, string> = {
  43: "corrects for tool lengths (G43): they are taken to be set right.",
  43.1: "corrects for tool lengths (G43.1): they are taken to be set right.",
  10: "sets offsets of the machine (G10): they are taken as they are.",
  95: "feeds by the turn of the spindle (G95): its time is not known.",
};
export const REFUSED: Record<number, string> = {
  18: "G18 turns arcs into another plane, which is not read here.",
  19: "G19 turns arcs into another plane, which is not read here.",
  41: "G41 shifts paths by the machine's own cutter table, which is not known here.",
  42: "G42 shifts paths by the machine's own cutter table, which is not known here.",
  68: "G68 turns the coordinates, which is not read here.",
  51: "G51 scales the coordinates, which is not read here.",
  93: "G93 gives feeds as inverse times, which are not read here.",
};
