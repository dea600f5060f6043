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

export const unitScale = (d: Dialect): number => (d.unit === "mm" ? 1 : 1 / MM_PER_INCH);
