import type { Cutter } from "../cutters/profile.ts";
import { HOBBY_ROUTER, type Machine } from "../cutters/feeds.ts";
import type { DrawingStyle } from "../output/dxf.ts";
import type { Settings } from "../settings/fields.ts";

/** Version of the document this build writes; older ones are brought up to it, newer ones refused. */
export const JOB_VERSION = 1;
export const JOB_FORMAT = "oaken-job";

export interface StockSettings {
  /** along X, mm */
  width: number;
  /** along Y, mm */
  height: number;
  thickness: number;
  material: string;
  /** work zero: front|centre|back – left|centre|right – top|bed */
  zero: string;
  /** art keeps this far from the stock's edges, mm */
  margin: number;
  /** its top is painted in this colour, #rrggbb; bare when not given */
  paint?: string;
}

/** A step of a picture's chain. Settings hold only what the user set; the rest is automatic. */
export interface JobNode {
  id: string;
  kind: string;
  name: string;
  /** nodes it reads */
  reads: string[];
  settings: Settings;
  /** for pictures: which file, by its content */
  asset?: { sha: string; name: string; width: number; height: number };
}

/** A pause before a cut, with what to do in it. */
export interface Stop {
  what: StopKind;
  /** more than the kind says */
  note: string;
}

export const STOPS = {
  stain: "Stain",
  paint: "Paint",
  mask: "Mask",
  flip: "Flip the stock",
  zero: "Set the work zero again",
  cutter: "Change the cutter",
  look: "Look at it",
  other: "Stop",
} as const;
export type StopKind = keyof typeof STOPS;

/** A stop in words. */
export const stopWords = (s: Stop): string => (s.note ? `${STOPS[s.what]}: ${s.note}` : STOPS[s.what]);

export interface JobCut {
  id: string;
  kind: string;
  name: string;
  on: boolean;
  /** the outline it cuts */
  reads: string[];
  /** the cut it prepares */
  target?: string;
  /** what a person does before it */
  stop?: Stop;
  /** cuts with the same group are switched and moved together */
  group?: string;
  cutter: Cutter;
  settings: Settings;
}

/** A job: everything a person decided, and nothing that can be computed from it. */
export interface JobDocument {
  format: typeof JOB_FORMAT;
  version: number;
  name: string;
  stock: StockSettings;
  nodes: JobNode[];
  /** in machining order */
  cuts: JobCut[];
  machine: Machine;
  dialect: string;
  /** proof cell in mm; 0 is automatic */
  cell: number;
  /** how curves are written into a DXF; arcs when not said */
  drawing?: DrawingStyle;
}

export const USUAL_STOCK: StockSettings = {
  width: 300,
  height: 200,
  thickness: 18,
  material: "ash",
  zero: "front-left-top",
  margin: 5,
};

export function emptyJob(name: string, stock: Partial<StockSettings> = {}): JobDocument {
  return {
    format: JOB_FORMAT,
    version: JOB_VERSION,
    name,
    stock: { ...USUAL_STOCK, ...stock },
    nodes: [],
    cuts: [],
    machine: { ...HOBBY_ROUTER },
    dialect: "mm-per-cutter",
    cell: 0,
  };
}

/** The work zero in stock coordinates, mm. */
export function zeroPoint(stock: StockSettings): { x: number; y: number; z: number } {
  const [y, x, z] = stock.zero.split("-");
  return {
    x: x === "left" ? 0 : x === "right" ? stock.width : stock.width / 2,
    y: y === "front" ? 0 : y === "back" ? stock.height : stock.height / 2,
    z: z === "top" ? 0 : -stock.thickness,
  };
}

export const ZEROS: readonly string[] = ["front", "centre", "back"].flatMap((y) =>
  ["left", "centre", "right"].flatMap((x) => ["top", "bed"].map((z) => `${y}-${x}-${z}`)),
);

/** The zero in words: front left corner, top of the stock. */
export function zeroWords(zero: string): string {
  const [y, x, z] = zero.split("-");
  const where =
    y === "centre" && x === "centre"
      ? "centre"
      : y === "centre" || x === "centre"
        ? `middle of the ${y === "centre" ? x : y} edge`
        : `${y} ${x} corner`;
  return `${where}, ${z === "top" ? "top of the stock" : "on the bed"}`;
}
