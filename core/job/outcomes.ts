import { cutterFromRack, RACK } from "../cutters/rack.ts";
import type { Cutter } from "../cutters/profile.ts";
import { Problem } from "../problem.ts";
import { emptyJob, type JobDocument, type JobNode, type StockSettings } from "./document.ts";

/** What a picture can become: each starts a job with sensible cuts. Add one as an entry here. */
export interface Outcome {
  id: string;
  title: string;
  /** one line for someone who has not made one before */
  about: string;
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

export const OUTCOMES: readonly Outcome[] = [
  { id: "sign", title: "Carved sign", about: "The ink is carved into the stock with a V cutter.", cuts: carve("in", null) },
  { id: "raised", title: "Raised sign", about: "The ink is left standing; everything round it is carved away.", cuts: carve("stands", null) },
  {
    id: "cutout",
    title: "Cut-out",
    about: "Each piece of ink is cut free of the stock, held by tabs.",
    cuts: (cutters, stock) => [{ id: "cut", kind: "profile", name: "Cut out", on: true, reads: ["outline"], cutter: cutters.main ?? longEnough(stock.thickness), settings: {} }],
  },
  {
    id: "engrave",
    title: "Engraved line",
    about: "One line along the middle of every stroke, as wide as it was drawn.",
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
