import { cutterFromRack, RACK } from "../cutters/rack.ts";
import type { Fit } from "../picture/fitness.ts";
import type { Cutter } from "../cutters/profile.ts";
import { Problem } from "../problem.ts";
import { emptyJob, type JobDocument, type JobNode, type StockSettings } from "./document.ts";

/** What a picture can become: each starts a job with sensible cuts. Add one as an entry here. */
export interface Outcome {
  id: string;
  title: string;
  /** one line for someone who has not made one before */
  about: string;
  /** whether a picture suits it at its size, and why */
  suits(f: Fit): { good: boolean; why: string };
  /** how the outline is traced, when not by ink */
  trace?: string;
  cuts(cutters: { main?: Cutter; clear?: Cutter | null }, stock: StockSettings): JobDocument["cuts"];
}

const carve = (side: "in" | "stands", border: string | null) => (cutters: { main?: Cutter; clear?: Cutter | null }) => {
  const cuts: JobDocument["cuts"] = [
    { id: "carve", kind: "vcarve", name: "Carve", on: true, reads: ["outline"], cutter: cutters.main ?? cutterFromRack("v60"), settings: side === "in" ? {} : { side, ...(border && { border }) } },
  ];
  if (cutters.clear) cuts.unshift({ id: "clear", kind: "clear", name: "Clear", on: true, reads: ["outline"], target: "carve", cutter: cutters.clear, settings: {} });
  return cuts;
};

/** The thinnest flat cutter of 3 mm and more that reaches through the stock; the longest where none does. */
function longEnough(thickness: number): Cutter {
  const flats = RACK.filter((c) => c.kind === "flat" && c.diameter >= 3).sort((a, b) => a.diameter - b.diameter);
  return { ...(flats.find((c) => c.fluteLength > thickness + 0.5) ?? flats[flats.length - 1]) };
}

/** A stroke this narrow is too weak to stand by itself, mm. */
const WEAK = 2;
/** A stroke this wide is a filled area, not a line, mm. */
const BROAD = 6;

const greys = (f: Fit) => f.greyShare > 0.25;
const carved = (f: Fit): { good: boolean; why: string } =>
  greys(f) ? { good: false, why: "soft greys have no edge to carve to" } : f.contrast < 0.2 ? { good: false, why: "little contrast: check the outline first" } : f.thinnest !== null && f.thinnest < 0.35 ? { good: false, why: "its thinnest strokes come out as scratches" } : { good: true, why: "clear edges and strokes wide enough" };
const standing = (f: Fit): { good: boolean; why: string } => (f.thinnest !== null && f.thinnest < 0.8 ? { good: false, why: `strokes of ${f.thinnest.toFixed(1)} mm may chip when left standing` } : carved(f));
const free = (f: Fit): { good: boolean; why: string } =>
  f.thinnest !== null && f.thinnest < WEAK ? { good: false, why: `strokes of ${f.thinnest.toFixed(1)} mm are weak when cut free` } : greys(f) ? { good: false, why: "soft greys have no edge to cut along" } : f.contours !== null && f.contours > 60 ? { good: false, why: `${f.contours} separate outlines to cut free` } : { good: true, why: "solid pieces" };
const lined = (f: Fit): { good: boolean; why: string } => (greys(f) ? { good: false, why: "soft greys have no strokes to follow" } : f.typical !== null && f.typical > BROAD ? { good: false, why: "broad areas are no lines: better carved" } : { good: true, why: "strokes that one pass can follow" });

export const OUTCOMES: readonly Outcome[] = [
  { id: "sign", title: "Carved sign", about: "The ink is carved into the stock with a V cutter.", suits: carved, cuts: carve("in", null) },
  { id: "raised", title: "Raised sign", about: "The ink is left standing; everything round it is carved away.", suits: standing, cuts: carve("stands", null) },
  {
    id: "cutout",
    title: "Cut-out",
    about: "Each piece of ink is cut free of the stock, held by tabs.",
    suits: free,
    cuts: (cutters, stock) => [{ id: "cut", kind: "profile", name: "Cut out", on: true, reads: ["outline"], cutter: cutters.main ?? longEnough(stock.thickness), settings: {} }],
  },
  {
    id: "engrave",
    title: "Engraved line",
    about: "One line along the middle of every stroke, as wide as it was drawn.",
    suits: lined,
    trace: "centre",
    cuts: (cutters, stock) => [{ id: "engrave", kind: "engrave", name: "Engrave", on: true, reads: ["outline"], cutter: cutters.main ?? cutterFromRack(stock.material === "brass" ? "v30" : "v60"), settings: { by: "width", depth: stock.material === "brass" ? 0.4 : 2 } }],
  },
];

/** @throws Problem `unknown-outcome` */
export function outcomeById(id: string): Outcome {
  const found = OUTCOMES.find((o) => o.id === id);
  if (!found) throw new Problem("unknown-outcome", `A picture cannot become "${id}". Known: ${OUTCOMES.map((o) => o.id).join(", ")}.`);
  return found;
}

/** The chain every picture gets: picture, tone, outline. */
export function pictureChain(asset: NonNullable<JobNode["asset"]>): JobNode[] {
  return [
    { id: "picture", kind: "picture", name: asset.name, reads: [], settings: {}, asset },
    { id: "tone", kind: "tone", name: "Tone", reads: ["picture"], settings: {} },
    { id: "outline", kind: "outline", name: "Outline", reads: ["tone"], settings: {} },
  ];
}

/** A new job: this picture as that outcome on this stock. */
export function startJob(outcome: string, asset: NonNullable<JobNode["asset"]>, stock: Partial<StockSettings>, cutters: { main?: Cutter; clear?: Cutter | null } = {}): JobDocument {
  const job = emptyJob(asset.name.replace(/\.[^.]+$/, ""), stock);
  const o = outcomeById(outcome);
  job.nodes = pictureChain(asset);
  if (o.trace) job.nodes.find((n) => n.kind === "outline")!.settings.trace = o.trace;
  job.cuts = o.cuts(cutters, job.stock);
  return job;
}
