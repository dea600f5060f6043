import { copyOf } from "../copy.ts";
import { type Cutter, sameCutter } from "../cutters/profile.ts";
import { parseCutter } from "../cutters/rack.ts";
import { cutKind } from "../cuts/register.ts";
import { isOwned, nearestCutter, type Shop } from "../shop/shop.ts";
import { makingKind } from "../makings/register.ts";
import { aboutOf, isCuttable, makingsThatGive } from "./graph.ts";
import { dropMissing } from "./boards.ts";
import type { BoardJob, JobCut, JobMaking } from "./document.ts";

/** Changes to a document that more than one place makes: each edits it in place and keeps it whole. */

/** A name for a new part that none has yet. */
export function freeId(job: BoardJob, base: string): string {
  const taken = new Set([...job.makings, ...job.cuts].map((p) => p.id));
  if (!taken.has(base)) return base;
  for (let k = 2; ; k++) if (!taken.has(`${base}-${k}`)) return `${base}-${k}`;
}

/** A copy of the first cutter of the rack that a kind of cut can use; what it is tried with where there is none. */
function usualCutter(kind: string, rack: readonly Cutter[]): Cutter {
  const { cutters, sample } = cutKind(kind);
  const owned = rack.filter(isOwned);
  const found = cutters.map((k) => owned.find((c) => c.kind === k)).find(Boolean);
  return found ? { ...found } : parseCutter(sample.cutter);
}

/** A new cut at the end, on the outline that the selection is about. @returns its id */
export function addCut(job: BoardJob, kind: string, about: string, rack: readonly Cutter[]): string {
  const id = freeId(job, kind);
  const { gives } = cutKind(kind).reads.art;
  const art = aboutOf(job, about, gives);
  const same = job.cuts.filter((c) => c.kind === kind).length;
  const { title } = cutKind(kind);
  job.cuts.push({
    id,
    kind,
    name: same > 0 ? `${title} ${same + 1}` : title,
    on: true,
    reads: art ? { art: art.id } : {},
    cutter: usualCutter(kind, rack),
    settings: {},
  });
  return id;
}

/** A helper of a cut, with its cutter, next to it in the order. @returns its id */
export function addHelper(job: BoardJob, target: JobCut, kind: string, cutter: Cutter): string {
  const id = freeId(job, `${kind}-${target.id}`);
  const mine = job.cuts.filter((c) => c.target === target.id);
  const { title } = cutKind(kind);
  const name = mine.length > 0 ? `${title} ${mine.length + 1}` : title;
  const last = mine[mine.length - 1];
  const at = job.cuts.indexOf(last ?? target) + (last || cutKind(kind).helps?.comes === "after" ? 1 : 0);
  job.cuts.splice(at, 0, {
    id,
    kind,
    name,
    on: true,
    reads: { ...target.reads },
    target: target.id,
    cutter,
    settings: {},
  });
  return id;
}

/** A helper of a kind with the cutter of the rack that is nearest to what the kind is usual with. @returns its id */
export function addUsualHelper(job: BoardJob, target: JobCut, kind: string, shop: Shop): string {
  const { kind: is, diameter, angle } = parseCutter(cutKind(kind).sample.cutter);
  return addHelper(job, target, kind, nearestCutter(shop, { kind: is, diameter, angle }));
}

/**
 * Puts these cutters in place of a cut's helpers of a kind, in this order. The same cutters keep their settings, and
 * what a person does before the first of them is done before whatever comes first now.
 */
export function setHelpers(job: BoardJob, target: JobCut, kind: string, cutters: readonly Cutter[]): void {
  const before = job.cuts.filter((c) => c.target === target.id && c.kind === kind);
  job.cuts = job.cuts.filter((c) => !before.includes(c));
  const now = cutters.map((cutter) => {
    const id = addHelper(job, target, kind, { ...cutter });
    const same = before.find((c) => sameCutter(c.cutter, cutter));
    const added = job.cuts.find((c) => c.id === id)!;
    if (same) {
      const { settings, on, stop, group } = same;
      Object.assign(added, { settings, on, ...(stop && { stop }), ...(group && { group }) });
    }
    return added;
  });
  const stop = before.find((c) => c.stop)?.stop;
  const first = now[0] ?? target;
  if (stop && !now.some((c) => c.stop)) first.stop ??= stop;
}

/** Cutters for a cut: its own first where that is chosen too, then those of the kind that helps it. */
export function takeCutters(
  job: BoardJob,
  target: JobCut,
  { own, kind }: { own: boolean; kind: string | null },
  cutters: readonly Cutter[],
): void {
  if (own) target.cutter = { ...cutters[0] };
  if (kind) setHelpers(job, target, kind, own ? cutters.slice(1) : cutters);
}

/** Takes a clamp or screw off the stock. */
export function removeClamp(job: BoardJob, at: number): void {
  const left = (job.stock.clamps ?? []).filter((_, i) => i !== at);
  if (left.length > 0) job.stock.clamps = left;
  else delete job.stock.clamps;
}

export function removeCut(job: BoardJob, id: string): void {
  job.cuts = job.cuts.filter((c) => c.id !== id && c.target !== id);
}

export function duplicateCut(job: BoardJob, id: string): string {
  const at = job.cuts.findIndex((c) => c.id === id);
  const twin = { ...copyOf(job.cuts[at]), id: freeId(job, id), name: `${job.cuts[at].name} again` };
  job.cuts.splice(at + 1, 0, twin);
  return twin.id;
}

/** Moves a cut to another place in the machining order; its group goes with it. */
export function moveCut(job: BoardJob, id: string, to: number): void {
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
export function addOutline(job: BoardJob, like: string, settings: JobMaking["settings"] = {}, name?: string): string {
  const from = job.makings.find((n) => n.id === like)!;
  const id = freeId(job, "outline");
  const count = makingsThatGive(job, "shapes").length;
  job.makings.splice(job.makings.indexOf(from) + 1, 0, {
    ...copyOf(from),
    id,
    name: name ?? `Outline ${count + 1}`,
    settings: { ...copyOf(from.settings), ...settings },
  });
  return id;
}

/** A picture with its own tone and outline. @returns the outline's id */
export function addPicture(job: BoardJob, asset: NonNullable<JobMaking["asset"]>): string {
  const picture = freeId(job, "picture");
  job.makings.push({ id: picture, kind: "picture", name: asset.name, reads: {}, settings: { measured: "art" }, asset });
  const tone = freeId(job, "tone");
  job.makings.push({ id: tone, kind: "tone", name: "Tone", reads: { from: picture }, settings: {} });
  const outline = freeId(job, "outline");
  const count = makingsThatGive(job, "shapes").length;
  job.makings.push({
    id: outline,
    kind: "outline",
    name: count > 0 ? `Outline ${count + 1}` : "Outline",
    reads: { from: tone },
    settings: {},
  });
  return outline;
}

/** A drawing, its shapes taken exactly. @returns its id */
export function addDrawing(job: BoardJob, asset: NonNullable<JobMaking["asset"]>): string {
  const id = freeId(job, "drawing");
  job.makings.push({ id, kind: "import", name: asset.name, reads: {}, settings: {}, asset });
  return id;
}

/**
 * Words, below the shapes that a part of the job is about. What is carved of those is carved of both, joined; what cuts
 * them out stays as it is.
 * @returns its id
 */
export function addLettering(job: BoardJob, about: string, settings: JobMaking["settings"] = {}): string {
  const shapes = aboutOf(job, about, "shapes")?.id;
  const id = addMaking(job, "lettering", ...(shapes === undefined ? [] : [shapes]));
  Object.assign(job.makings.find((m) => m.id === id)!.settings, settings);
  const carving = job.cuts.filter((c) => c.reads.art === shapes && !cutKind(c.kind).cutsOut);
  if (shapes === undefined || carving.length === 0) return id;
  const both = addMaking(job, "combine", shapes, id);
  for (const c of carving) c.reads.art = both;
  return id;
}

/** The surface of a solid. @returns its id */
export function addSolid(job: BoardJob, asset: NonNullable<JobMaking["asset"]>): string {
  const id = freeId(job, "solid");
  job.makings.push({ id, kind: "solid", name: asset.name, reads: {}, settings: {}, asset });
  return id;
}

/**
 * A making of a kind from another one, and from more where it reads more.
 * @param from what it reads first, and what besides, in the order of its reads
 * @returns its id
 */
export function addMaking(job: BoardJob, kind: string, ...from: string[]): string {
  const { title, reads } = makingKind(kind);
  const id = freeId(job, kind);
  const names = Object.keys(reads).slice(0, from.length);
  const count = job.makings.filter((n) => n.kind === kind).length;
  const name = count > 0 ? `${title} ${count + 1}` : title;
  const read = Object.fromEntries(names.map((k, i) => [k, from[i]]));
  job.makings.push({ id, kind, name, reads: read, settings: {} });
  return id;
}

/** Takes out a making with all that is made from it; cuts that worked on it stay, without a shape, and say so. */
export function removeMaking(job: BoardJob, id: string): void {
  const gone = new Set([id]);
  for (const n of job.makings) if (readsAny(n, gone)) gone.add(n.id);
  job.makings = job.makings.filter((n) => !gone.has(n.id));
  // What only it needed goes too: a picture from which no shapes are made makes nothing.
  const isIdle = (n: JobMaking) =>
    !isCuttable(job, n) && !job.makings.some((m) => Object.values(m.reads).includes(n.id));
  while (job.makings.some(isIdle)) job.makings = job.makings.filter((n) => !isIdle(n));
  for (const c of job.cuts) dropMissing(c, job.makings);
}

const readsAny = (n: JobMaking, ids: ReadonlySet<string>): boolean => Object.values(n.reads).some((r) => ids.has(r));
