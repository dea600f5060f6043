import { Problem } from "../../problem.ts";
import { MM_PER_INCH } from "../../units.ts";

/** How a machine wants its program written. */
export interface Dialect {
  id: string;
  name: string;
  unit: "mm" | "in";
  /** digits after the point for coordinates */
  decimals: number;
  /** one file for each cutter, or tool changes inside one file */
  files: "cutter" | "all";
  arcs: boolean;
  extension: string;
  /** seconds to wait after the spindle starts, as G4 P */
  dwell: number;
  /** how a torch is lit and put out */
  torchOn: string;
  torchOff: string;
}

/** Every dialect there is; one line each. */
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

export const unitScale = (d: Dialect): number => (d.unit === "mm" ? 1 : 1 / MM_PER_INCH);

/** @throws Problem `unknown-dialect` */
export function dialectById(id: string): Dialect {
  const found = DIALECTS.find((d) => d.id === id);
  if (!found)
    throw new Problem("unknown-dialect", `No dialect "${id}". Known: ${DIALECTS.map((d) => d.id).join(", ")}.`);
  return found;
}
