import { randomUUID } from "node:crypto";
import { join } from "node:path";
import { mkdir, readFile, rm } from "node:fs/promises";
import { documentOf } from "@oaken/core/job/boards";
import { checkJob } from "@oaken/core/job/schema";
import { startJob } from "@oaken/core/job/start";
import type { JobDocument } from "@oaken/core/job/document";
import { Problem } from "@oaken/core/problem";
import { checkThumb, unpackJob } from "@oaken/files/decode";
import { writeJobFile } from "@oaken/files/jobfile";
import { assetBytes, checkPictures, keepFile } from "./assets.ts";
import { dataFolder, INCOMING, THUMBS } from "./data.ts";
import { type JobCard, card, toldOf } from "./card.ts";
import { JobRow, RevisionRow, store, write } from "./db.ts";
import { shopNow } from "./shop.ts";
import { passingName, storageProblem, writePassing, writeWhole } from "./files.ts";
import { limited } from "./respond.ts";
import { FIRST_SHOP } from "@oaken/core/shop/first/shop";

export async function listJobs(): Promise<JobCard[]> {
  await store();
  return (await JobRow.findAll({ order: [["updatedAt", "DESC"]] })).map(card);
}

/** A job's name in the database is a random UUID: nothing else is asked for. */
export const isJobId = (id: string): boolean => /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/.test(id);
export const noJob = (): Problem =>
  new Problem("no-job", "There is no such job. It may have been deleted in another window.");

async function row(id: string): Promise<JobRow> {
  await store();
  const found = isJobId(id) ? await JobRow.findByPk(id) : null;
  if (!found) throw noJob();
  return found;
}

export async function createJob(doc: unknown, what = "created"): Promise<JobCard> {
  const job = checkJob(doc, FIRST_SHOP);
  await checkPictures(job, () => []);
  return write(async (transaction) => {
    const r = await JobRow.create({ id: randomUUID(), revision: 1, ...toldOf(job) }, { transaction });
    await RevisionRow.create({ jobId: r.id, number: 1, document: JSON.stringify(job), summary: what }, { transaction });
    return card(r);
  });
}

/** A job that is made of words alone. Letters are mostly too narrow for a cutter that would help: none does. */
export async function createOfWords(outcome: string): Promise<JobCard> {
  return createJob(documentOf(startJob(await shopNow(), { outcome })));
}

/** A job's newest document, or an older one, as stored: checked again, for the file may come from anywhere. */
export async function openJob(id: string, revision?: number): Promise<{ card: JobCard; document: JobDocument }> {
  const r = await row(id);
  const rev = await RevisionRow.findOne({
    where: { jobId: id, number: revision ?? r.revision, ...(revision === undefined && { refused: false }) },
    order: [["id", "DESC"]],
  });
  if (!rev) throw new Problem("no-revision", "There is no such revision of this job.");
  return { card: card(r), document: checkJob(JSON.parse(rev.document), FIRST_SHOP) };
}

export interface Revision {
  key: number;
  number: number;
  summary: string;
  refused: boolean;
  at: string;
}

export async function listRevisions(id: string): Promise<Revision[]> {
  await row(id);
  const rows = await RevisionRow.findAll({
    where: { jobId: id },
    attributes: ["id", "number", "summary", "refused", "createdAt"],
    order: [["id", "DESC"]],
    limit: 500,
  });
  return rows.map((r) => ({
    key: r.id,
    number: r.number,
    summary: r.summary,
    refused: r.refused,
    at: r.createdAt.toISOString(),
  }));
}

/** Opens a copy as a job of its own: the newest state, or the revision with this key. */
export async function copyJob(id: string, key?: number): Promise<JobCard> {
  const r = await row(id);
  const rev =
    key === undefined
      ? await RevisionRow.findOne({ where: { jobId: id, number: r.revision, refused: false } })
      : await RevisionRow.findOne({ where: { jobId: id, id: key } });
  if (!rev) throw new Problem("no-revision", "There is no such revision of this job.");
  const doc = checkJob(JSON.parse(rev.document), FIRST_SHOP);
  doc.name = key === undefined ? `${doc.name} copy` : `${doc.name}, revision ${rev.number}`;
  const made = await createJob(
    doc,
    key === undefined ? `copied from ${r.name}` : `opened from revision ${rev.number} of ${r.name}`,
  );
  const picture = await thumb(id);
  if (picture) await keepThumb(made.id, picture, r.seconds);
  return made;
}

export async function patchJob(id: string, patch: { archived?: boolean; written?: number }): Promise<JobCard> {
  const r = await row(id);
  if (patch.written !== undefined && (patch.written < 1 || patch.written > r.revision))
    throw new Problem("no-revision", `This job has no revision ${patch.written} that programs could come from.`);
  await write((transaction) => r.update(patch, { silent: true, transaction }));
  return card(r);
}

/** Largest side of a proof's picture, pixels. */
const THUMB_SIDE = 2048;
const thumbPath = (id: string): string => join(dataFolder(), THUMBS, `${id.replace(/[^0-9a-f-]/g, "")}.png`);

/** Keeps the picture of a job's proof for its card, with the time it takes. */
export async function keepThumb(id: string, png: Uint8Array, seconds: number, stops = 0): Promise<void> {
  const r = await row(id);
  if (!(seconds >= 0 && seconds < Infinity))
    throw new Problem("bad-request", "The machining time must be a number of seconds, 0 or more.");
  await checkThumb(png, THUMB_SIDE);
  await writeWhole(thumbPath(id), png);
  await write((transaction) =>
    r.update({ seconds, stops: Math.max(0, Math.round(stops) || 0) }, { silent: true, transaction }),
  );
}

/** The picture of a job's proof; null where there is none yet. */
export async function thumb(id: string): Promise<Uint8Array | null> {
  await row(id);
  return readFile(thumbPath(id)).catch(() => null);
}

/** A job with its pictures inside, for another machine. */
export async function exportJob(id: string): Promise<{ name: string; text: string }> {
  const { document } = await openJob(id);
  const assets = new Map<string, { name: string; bytes: Uint8Array }>();
  for (const { asset } of document.makings)
    if (asset) assets.set(asset.sha, { name: asset.name, bytes: await assetBytes(asset.sha) });
  return { name: document.name, text: writeJobFile({ job: document, assets }) };
}

/** Largest job file, bytes: it carries its pictures in base64, a third larger than they are. */
const MOST_JOB_FILE = 128 << 20;

/** A job from a file that arrives as a request's body; it is taken apart in the decoder's process. */
export async function importJob(request: Request): Promise<JobCard> {
  await store();
  const folder = passingName(join(dataFolder(), INCOMING, "job"));
  try {
    await mkdir(folder);
    const file = join(folder, "file");
    await writePassing(file, limited(request, MOST_JOB_FILE));
    const { document, pictures } = await unpackJob(file, folder, FIRST_SHOP);
    for (const { sha, name } of pictures) await keepFile(join(folder, sha), sha, name);
    return await createJob(document, "imported");
  } catch (e) {
    throw storageProblem(e);
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}
