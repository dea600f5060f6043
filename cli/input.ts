import { readFile, stat } from "node:fs/promises";
import { basename } from "node:path";
import type { Cutter } from "@oaken/core/cutters/profile";
import { parseCutter } from "@oaken/core/cutters/rack";
import { boardJob, documentOf, putBoard } from "@oaken/core/job/boards";
import { addDrawing, addMaking } from "@oaken/core/job/edit";
import { aboutOf } from "@oaken/core/job/graph";
import { type Chosen, outcomeById } from "@oaken/core/job/outcomes";
import { copyOf } from "@oaken/core/copy";
import type { JobDocument } from "@oaken/core/job/document";
import { begunFrom, lockFault, setPicture } from "@oaken/core/job/lock";
import { drawingMakings, solidMakings } from "@oaken/core/job/sources";
import { startJob, usualHelpers } from "@oaken/core/job/start";
import { facesIn, type Files } from "@oaken/core/job/tools";
import type { Fixed } from "@oaken/core/job/choose";
import { makingKind } from "@oaken/core/makings/register";
import { warmUp } from "@oaken/core/outline/warm";
import type { Raster } from "@oaken/core/picture/raster";
import { Problem } from "@oaken/core/problem";
import type { Shop } from "@oaken/core/shop/shop";
import { decodePicture } from "@oaken/files/decode";
import { MAX_BYTES } from "@oaken/files/decoder/kinds";
import { faceOf } from "@oaken/files/faces";
import { drawingOf } from "@oaken/files/drawing";
import { type JobFile, readJobFile } from "@oaken/files/jobfile";
import { isSolidName, solidOf } from "@oaken/files/solid";
import { sha256 } from "@oaken/files/sha256";
import type { MakeOptions } from "./options.ts";

/** A job with its files, and what of them is decoded already. */
export interface Input {
  /** begun from a picture or a drawing: no job that was kept */
  isNew: boolean;
  file: JobFile;
  decoded: Map<string, Raster>;
  /** what was begun from a starting job, as it was before options changed it */
  before?: JobDocument;
}

/** The job that the command line names: one that was kept, or one begun from a picture or a drawing. */
export async function inputOf(o: MakeOptions, shop: Shop): Promise<Input> {
  const decoded = new Map<string, Raster>();
  if (o.input === undefined) return { isNew: true, file: fromWords(o, shop), decoded };
  const bytes = await readInput(o.input);
  const isJob = bytes[0] === 0x7b || /\.json$/i.test(o.input);
  let file: JobFile;
  if (isJob) file = readJobFile(bytes.toString("utf8"), shop);
  else if (o.picture !== undefined)
    throw new Problem("no-start", `${o.input} is a picture. A picture after it is put into a starting job: name that.`);
  else if (o.exact) file = fromDrawing(bytes, o.input, o, shop);
  else if (isSolidName(o.input)) file = fromSolid(bytes, o.input, o, shop);
  else file = await fromPicture(bytes, o.input, o, shop, decoded);
  if (o.with !== undefined || o.offset !== undefined) await combineWith(file, o);
  if (o.picture === undefined) {
    if (isJob && o.text !== undefined) setWords(file.job, o.text);
    return { isNew: !isJob, file, decoded };
  }
  const before = begunFrom(basename(o.input), file.job, { person: o.person ?? basename(o.picture), class: o.class });
  file.job = await withPicture(before, file, o.picture, decoded);
  if (o.text !== undefined) setWords(file.job, o.text);
  return { isNew: false, file, decoded, before };
}

/** A starting job with a picture of somebody's own in place of its own. @throws Problem `no-start` */
async function withPicture(
  begun: JobDocument,
  file: JobFile,
  path: string,
  decoded: Input["decoded"],
): Promise<JobDocument> {
  if (!file.job.start)
    throw new Problem("no-start", `${file.job.name} is not a starting job. Make it one in the application first.`);
  const bytes = await readInput(path);
  const name = basename(path);
  const raster = await decodePicture(bytes, name);
  const sha = sha256(bytes);
  decoded.set(sha, raster);
  file.assets.set(sha, { name, bytes });
  const doc = copyOf(begun);
  setPicture(doc, { sha, name, width: raster.width, height: raster.height });
  const used = new Set(doc.makings.map((m) => m.asset?.sha));
  for (const known of file.assets.keys()) if (!used.has(known)) file.assets.delete(known);
  return doc;
}

/** @throws Problem `locked` where options change what the starting job locks */
export function checkLock({ before, file }: Input): void {
  const fault = before && lockFault(before, file.job);
  if (fault) throw new Problem("locked", fault);
}

/** The files of a job, decoded. @throws Problem `no-picture` where it has none */
export async function filesOf({ file, decoded }: Input): Promise<Files> {
  const assets = file.job.makings.flatMap((m) => (m.asset ? [{ ...m.asset, is: makingKind(m.kind).file }] : []));
  if (assets.length === 0 && facesIn(file.job.makings).size === 0)
    throw new Problem("no-picture", "This job has no picture. Add one in the application.");
  const bytesOf = (sha: string) => file.assets.get(sha)!.bytes;
  for (const a of assets)
    if (a.is === "picture" && !decoded.has(a.sha)) decoded.set(a.sha, await decodePicture(bytesOf(a.sha), a.name));
  return {
    picture: (sha) => decoded.get(sha)!,
    drawing: (sha) => Buffer.from(bytesOf(sha)).toString("utf8"),
    solid: bytesOf,
    face: faceOf,
  };
}

/** Lets the application choose the cutters. */
const AUTO = "auto";

/** Whether cutters are to be chosen: where nobody named any for a new job, or asked for it. */
export const isChoosing = (o: MakeOptions, { isNew }: Input): boolean =>
  isNew || [o.clear, o.rest, o.rough].some((specs) => specs.includes(AUTO));

/** Which cutters are not to be chosen: named ones, and the cuts' own of a job that was kept. */
export function fixedBy(o: MakeOptions, { isNew }: Input): Fixed {
  const named = [o.clear, o.rest, o.rough].flat();
  const helpers = named.length === 0 ? undefined : !named.includes(AUTO);
  return { own: !isNew || o.cutter.length > 0, helpers };
}

/** The cutters that the options name. */
function chosen(o: MakeOptions, shop: Shop): Chosen {
  const cutters = (specs: readonly string[]) => specs.map((spec) => parseCutter(spec, shop.cutters));
  const usual = usualHelpers(outcomeById(o.as), shop);
  const named = (specs: readonly string[], otherwise: readonly Cutter[] = []) =>
    specs.length === 0 || specs.includes(AUTO) ? otherwise : cutters(specs.filter((c) => c !== "none"));
  return {
    main: cutters(o.cutter),
    clear: named(o.clear, usual.clear),
    rest: named(o.rest),
    rough: named(o.rough, usual.rough),
  };
}

/** Writes words into a job's lettering. @throws Problem `no-lettering` where it has none */
function setWords(job: JobDocument, text: string): void {
  const lettering = job.makings.find((m) => m.kind === "lettering");
  if (!lettering)
    throw new Problem("no-lettering", `${job.name} has no lettering to put words into. Add some in the application.`);
  lettering.settings.text = text;
}

/** A job of words alone. */
function fromWords(o: MakeOptions, shop: Shop): JobFile {
  const job = startJob(shop, { outcome: o.as, words: o.text, stock: { ...o.stock }, cutters: chosen(o, shop) });
  return { job: documentOf(job), assets: new Map() };
}

/** A job of a picture. */
async function fromPicture(
  bytes: Buffer,
  path: string,
  o: MakeOptions,
  shop: Shop,
  decoded: Input["decoded"],
): Promise<JobFile> {
  const name = basename(path);
  const decoding = decodePicture(bytes, name);
  // The picture is decoded on another thread meanwhile.
  warmUp();
  const raster = await decoding;
  const sha = sha256(bytes);
  decoded.set(sha, raster);
  const { width, height } = raster;
  const asset = { sha, name, width, height };
  const begin = { outcome: o.as, asset, words: o.text, stock: { ...o.stock }, cutters: chosen(o, shop) };
  const job = startJob(shop, begin);
  return { job: documentOf(job), assets: new Map([[sha, { name, bytes }]]) };
}

/** A drawing as an asset: its size is found out when it is read. */
function drawingAsset(bytes: Buffer, name: string) {
  drawingOf(bytes, name);
  return { sha: sha256(bytes), name, width: 1, height: 1 };
}

/** A job of a drawing's own shapes. */
function fromDrawing(bytes: Buffer, path: string, o: MakeOptions, shop: Shop): JobFile {
  const asset = drawingAsset(bytes, basename(path));
  const begin = { outcome: o.as, asset, words: o.text, stock: { ...o.stock }, cutters: chosen(o, shop) };
  const job = startJob(shop, { ...begin, makings: drawingMakings });
  return { job: documentOf(job), assets: new Map([[asset.sha, { name: asset.name, bytes }]]) };
}

/** A job of a solid's surface. */
function fromSolid(bytes: Buffer, path: string, o: MakeOptions, shop: Shop): JobFile {
  const asset = { sha: sha256(solidOf(bytes)), name: basename(path), width: 1, height: 1 };
  const cutters = chosen(o, shop);
  const job = startJob(shop, { outcome: o.as, asset, stock: { ...o.stock }, cutters, makings: solidMakings });
  return { job: documentOf(job), assets: new Map([[asset.sha, { name: asset.name, bytes }]]) };
}

/** The shapes that are cut combined with those of another drawing, or with their edges moved. */
async function combineWith({ job: doc, assets }: JobFile, o: MakeOptions): Promise<void> {
  const job = boardJob(doc, o.board);
  const first = aboutOf(job, job.cuts[0]?.id ?? "", "shapes");
  if (!first) throw new Problem("no-outline", "This job has no shapes to combine.");
  let second: string | undefined;
  if (o.with !== undefined) {
    const bytes = await readInput(o.with);
    const asset = drawingAsset(bytes, basename(o.with));
    assets.set(asset.sha, { name: asset.name, bytes });
    second = addDrawing(job, asset);
  }
  const combined = addMaking(job, "combine", first.id, ...(second === undefined ? [] : [second]));
  for (const c of job.cuts)
    for (const [name, id] of Object.entries(c.reads)) if (id === first.id) c.reads[name] = combined;
  putBoard(doc, job);
}

export async function readInput(path: string): Promise<Buffer> {
  const missing = new Problem("no-file", `${path} cannot be opened. Check the name and that you may read it.`);
  const info = await stat(path).catch(() => {
    throw missing;
  });
  if (info.isDirectory()) throw new Problem("no-file", `${path} is a folder. Name a picture or a job file in it.`);
  if (info.size > 2 * MAX_BYTES)
    throw new Problem(
      "file-too-large",
      `${path} has ${Math.round(info.size / 2 ** 20)} MB, more than any picture or job taken in here.`,
    );
  return readFile(path).catch(() => {
    throw missing;
  });
}
