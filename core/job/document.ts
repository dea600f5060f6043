import type { Cutter } from "../cutters/profile.ts";
import type { Machine } from "../cutters/machine.ts";
import type { Material } from "../cutters/materials.ts";
import type { DrawingStyle } from "../output/dxf.ts";
import type { Dialect } from "../output/gcode/dialect.ts";
import type { Settings } from "../settings/fields.ts";
import { copyOf } from "../copy.ts";
import { formatLength } from "../units.ts";
import { machineIn, materialIn, type Shop } from "../shop/shop.ts";

/** Version of the document this build writes; older ones are brought up to it, newer ones refused. */
export const JOB_VERSION = 2;
export const JOB_FORMAT = "oaken-job";

export interface StockSettings {
  /** along X, mm */
  width: number;
  /** along Y, mm */
  height: number;
  thickness: number;
  /** a copy of what the shop knew of it */
  material: Material;
  /** work zero: front|centre|back – left|centre|right – top|bed */
  zero: string;
  /** art keeps this far from the stock's edges, mm */
  margin: number;
  /** its top is painted in this colour, #rrggbb; bare when not given */
  paint?: string;
  /** how thick that paint is, mm; next to nothing when not given */
  coat?: number;
  /** what holds it down and must not be cut into */
  clamps?: Clamp[];
}

/** A clamp or a screw's head on the stock: a rectangle from its front-left corner on, or the disc inside it; mm. */
export interface Clamp {
  x: number;
  y: number;
  width: number;
  height: number;
  /** how far it stands above the stock's top */
  tall: number;
  round?: boolean;
}

/** More clamps than hold any board. */
export const MOST_CLAMPS = 60;

/** How programs are named, and whose piece it is. */
export interface Naming {
  /** with values in curly brackets; the usual one when not given */
  pattern?: string;
  person?: string;
  class?: string;
}

/** What a starting job leaves open to those who begin from it; everything else is locked. */
export interface StartRules {
  open: ("picture" | "size" | "text")[];
  /** the least and the largest width of the picture, mm */
  least?: number;
  most?: number;
}

/** Which starting job a job was begun from, as it was then. */
export interface Begun {
  id: string;
  name: string;
  rules: StartRules;
  /** its own picture, by content: whoever still has that one has none of their own */
  picture?: string;
}

/** What a part of a job reads: the id of a making for each named input; those that it goes without are left out. */
export type Reads = Record<string, string>;

/** A step of what the piece is made from. Settings hold only what the user set; the rest is automatic. */
export interface JobMaking {
  id: string;
  kind: string;
  name: string;
  reads: Reads;
  settings: Settings;
  /** which file it stands for, by its content */
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
  reads: Reads;
  /** the cut it prepares */
  target?: string;
  /** what a person does before it */
  stop?: Stop;
  /** cuts with the same group are switched and moved together */
  group?: string;
  cutter: Cutter;
  settings: Settings;
}

/** One piece of stock, and what is cut from it. */
export interface Board {
  id: string;
  name: string;
  stock: StockSettings;
  /** in machining order */
  cuts: JobCut[];
  /** proof cell in mm; 0 is automatic */
  cell: number;
}

/** More boards than anyone cuts for one piece. */
export const MOST_BOARDS = 40;

/** What all boards of a job share. */
interface Shared {
  name: string;
  /** each after those that it reads */
  makings: JobMaking[];
  /** copies of what the shop knew of them */
  machine: Machine;
  dialect: Dialect;
  /** how curves are written into a DXF; arcs when not said */
  drawing?: DrawingStyle;
  naming?: Naming;
  /** others begin from it */
  start?: StartRules;
  begun?: Begun;
  /** it holds a height for other jobs to take, and nothing that is cut */
  kept?: true;
}

/** What all boards share, and only that. */
export function sharedOf(from: Shared): Shared {
  const { name, makings, machine, dialect, drawing, naming, start, begun, kept } = from;
  return {
    name,
    makings,
    machine,
    dialect,
    ...(drawing && { drawing }),
    ...(naming && { naming }),
    ...(start && { start }),
    ...(begun && { begun }),
    ...(kept && { kept }),
  };
}

/** A job: everything a person decided, and nothing that can be computed from it. */
export interface JobDocument extends Shared {
  format: typeof JOB_FORMAT;
  version: number;
  /** at least one */
  boards: Board[];
}

/**
 * A job as it stands on one of its boards: what is computed, inspected and written together. Automatic sizes and places
 * of what all boards share are found for this one.
 */
export interface BoardJob extends Shared {
  board: Pick<Board, "id" | "name">;
  stock: StockSettings;
  cuts: JobCut[];
  cell: number;
}

/** Size of the stock where nothing is said, mm. */
const USUAL_SIZE = { width: 300, height: 200, thickness: 18, zero: "front-left-top", margin: 5 };
/** Paint thicker than this is a board of its own, mm. */
export const MOST_COAT = 5;
/** What it is made of then, where the shop knows that. */
const USUAL_MATERIAL = "ash";

/** Stock as it usually lies in this shop. */
export function usualStock(shop: Shop): StockSettings {
  const material = shop.materials.find((m) => m.id === USUAL_MATERIAL) ?? shop.materials[0];
  return { ...USUAL_SIZE, material: materialIn(shop, material.id) };
}

/** The dialect that a machine reads; the first one where that is not known. */
const dialectFor = (shop: Shop, machine: Machine): Dialect =>
  copyOf(shop.dialects.find((d) => d.id === machine.dialect) ?? shop.dialects[0]);

/** Takes a machine of the shop for a job, with the dialect that it reads where the shop knows that. */
export function takeMachine(job: Pick<Shared, "machine" | "dialect">, id: string, shop: Shop): void {
  job.machine = machineIn(shop, id);
  const own = shop.dialects.find((d) => d.id === job.machine.dialect);
  if (own) job.dialect = copyOf(own);
}

/** A job without makings and cuts, on one board. */
export function emptyJob(shop: Shop, name: string, stock: Partial<StockSettings> = {}): BoardJob {
  return {
    name,
    makings: [],
    machine: machineIn(shop, shop.machines[0].id),
    dialect: dialectFor(shop, shop.machines[0]),
    board: { id: "board", name: "Board" },
    stock: { ...usualStock(shop), ...stock },
    cuts: [],
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

/** The stock's size and what it is of, in words. */
export const stockWords = ({ width, height, thickness, material }: StockSettings): string =>
  `${formatLength(width)} x ${formatLength(height)} x ${formatLength(thickness)} mm ${material.name}`;

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
