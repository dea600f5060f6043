import { cutKind, CUTS } from "../cuts/register.ts";
import { makingKind } from "../makings/register.ts";
import { cutterFromRack, RACK } from "../cutters/rack.ts";
import { aboutOf, makingsThatGive } from "./graph.ts";
import type { JobCut, JobDocument, JobNode } from "./document.ts";

/** Changes to a document that more than one place makes: each edits it in place and keeps it whole. */

/** A document is JSON: so is a copy of any part of it. */
const copy = <T>(v: T): T => JSON.parse(JSON.stringify(v)) as T;

/** A name for a new part that none has yet. */
export function freeId(job: JobDocument, base: string): string {
  const taken = new Set([...job.nodes, ...job.cuts].map((p) => p.id));
  if (!taken.has(base)) return base;
  for (let k = 2; ; k++) if (!taken.has(`${base}-${k}`)) return `${base}-${k}`;
}

/** The first cutter of the rack that a kind of cut can use. */
function usualCutter(kind: string): JobCut["cutter"] {
  const { cutters } = cutKind(kind);
  const found = cutters.map((k) => RACK.find((c) => c.kind === k)).find(Boolean)!;
  return cutterFromRack(found.id!);
}

/** A new cut at the end, on the outline that the selection is about. @returns its id */
export function addCut(job: JobDocument, kind: string, about: string): string {
  const id = freeId(job, kind);
  const shapes = aboutOf(job, about, "shapes");
  const same = job.cuts.filter((c) => c.kind === kind).length;
  const { title } = cutKind(kind);
  job.cuts.push({
    id,
    kind,
    name: same > 0 ? `${title} ${same + 1}` : title,
    on: true,
    reads: shapes ? [shapes.id] : [],
    cutter: usualCutter(kind),
    settings: {},
  });
  return id;
}

/** A helper of a cut, with its cutter, next to it in the order. @returns its id */
export function addHelper(job: JobDocument, target: JobCut, kind: string, cutter: JobCut["cutter"]): string {
  const id = freeId(job, `${kind}-${target.id}`);
  const mine = job.cuts.filter((c) => c.target === target.id);
  const { title } = cutKind(kind);
  const name = mine.length > 0 ? `${title} ${mine.length + 1}` : title;
  const last = mine[mine.length - 1];
  const at = job.cuts.indexOf(last ?? target) + (last || cutKind(kind).helps?.comes === "after" ? 1 : 0);
  job.cuts.splice(at, 0, { id, kind, name, on: true, reads: target.reads, target: target.id, cutter, settings: {} });
  return id;
}

export function removeCut(job: JobDocument, id: string): void {
  job.cuts = job.cuts.filter((c) => c.id !== id && c.target !== id);
}

export function duplicateCut(job: JobDocument, id: string): string {
  const at = job.cuts.findIndex((c) => c.id === id);
  const twin = { ...copy(job.cuts[at]), id: freeId(job, id), name: `${job.cuts[at].name} again` };
  job.cuts.splice(at + 1, 0, twin);
  return twin.id;
}

/** Moves a cut to another place in the machining order; its group goes with it. */
export function moveCut(job: JobDocument, id: string, to: number): void {
  const cut = job.cuts.find((c) => c.id === id)!;
  const moving = cut.group ? job.cuts.filter((c) => c.group === cut.group) : [cut];
  const before = job.cuts[to];
  if (!before || moving.includes(before)) return;
  const down = job.cuts.indexOf(cut) < to;
  const rest = job.cuts.filter((c) => !moving.includes(c));
  rest.splice(rest.indexOf(before) + (down ? 1 : 0), 0, ...moving);
  job.cuts = rest;
}

/** Another outline of the same tone, with the same settings but for those given. @returns its id */
export function addOutline(job: JobDocument, like: string, settings: JobNode["settings"] = {}, name?: string): string {
  const from = job.nodes.find((n) => n.id === like)!;
  const id = freeId(job, "outline");
  const count = makingsThatGive(job, "shapes").length;
  job.nodes.splice(job.nodes.indexOf(from) + 1, 0, {
    ...copy(from),
    id,
    name: name ?? `Outline ${count + 1}`,
    settings: { ...copy(from.settings), ...settings },
  });
  return id;
}

/** A picture with its own tone and outline. @returns the outline's id */
export function addPicture(job: JobDocument, asset: NonNullable<JobNode["asset"]>): string {
  const picture = freeId(job, "picture");
  job.nodes.push({ id: picture, kind: "picture", name: asset.name, reads: [], settings: { measured: "art" }, asset });
  const tone = freeId(job, "tone");
  job.nodes.push({ id: tone, kind: "tone", name: "Tone", reads: [picture], settings: {} });
  const outline = freeId(job, "outline");
  const count = makingsThatGive(job, "shapes").length;
  job.nodes.push({
    id: outline,
    kind: "outline",
    name: count > 0 ? `Outline ${count + 1}` : "Outline",
    reads: [tone],
    settings: {},
  });
  return outline;
}

/** A drawing, its shapes taken exactly. @returns its id */
export function addDrawing(job: JobDocument, asset: NonNullable<JobNode["asset"]>): string {
  const id = freeId(job, "drawing");
  job.nodes.push({ id, kind: "import", name: asset.name, reads: [], settings: {}, asset });
  return id;
}

/** Shapes made from those of two others, or from one. @returns its id */
export function addCombination(job: JobDocument, first: string, second?: string): string {
  const id = freeId(job, "combination");
  const reads = second === undefined ? [first] : [first, second];
  const count = job.nodes.filter((n) => n.kind === "combine").length;
  const name = count > 0 ? `Combination ${count + 1}` : "Combination";
  job.nodes.push({ id, kind: "combine", name, reads, settings: {} });
  return id;
}

/** Takes out a making with all that is made from it; cuts that worked on it stay, without a shape, and say so. */
export function removeMaking(job: JobDocument, id: string): void {
  const gone = new Set([id]);
  for (const n of job.nodes) if (n.reads.some((r) => gone.has(r))) gone.add(n.id);
  job.nodes = job.nodes.filter((n) => !gone.has(n.id));
  // What only it needed goes too: a picture from which no shapes are made makes nothing.
  const isIdle = (n: JobNode) => !isCuttable(n) && !job.nodes.some((m) => m.reads.includes(n.id));
  while (job.nodes.some(isIdle)) job.nodes = job.nodes.filter((n) => !isIdle(n));
  // Inputs go by their order: what comes after a missing one would take its place.
  for (const c of job.cuts) {
    const missing = c.reads.findIndex((r) => !job.nodes.some((n) => n.id === r));
    if (missing >= 0) c.reads = c.reads.slice(0, missing);
  }
}

/** Whether some kind of cut can work on what a making gives. */
const isCuttable = (n: JobNode): boolean =>
  CUTS.some((k) => Object.values(k.reads).some((take) => take.gives === makingKind(n.kind).gives));
