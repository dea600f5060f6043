import type { Dialect } from "../../output/gcode/dialect.ts";

/** The dialects that a new workshop knows, the usual one first; a job keeps a copy of its own. */
export const DIALECTS: readonly Dialect[] = [
  {
    id: "mm-per-cutter",
    name: "Millimetres, one program for each cutter",
    unit: "mm",
    decimals: 3,
    files: "cutter",
    arcs: true,
    extension: "nc",
    dwell: 3,
    torchOn: "M3",
    torchOff: "M5",
  },
  {
    id: "inch-toolchange",
    name: "Inches, tool changes inside one program",
    unit: "in",
    decimals: 4,
    files: "all",
    arcs: true,
    extension: "nc",
    dwell: 3,
    torchOn: "M3",
    torchOff: "M5",
  },
];
