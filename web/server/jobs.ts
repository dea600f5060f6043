import { randomUUID } from "node:crypto";
import { join } from "node:path";
import { readFile } from "node:fs/promises";
import { checkJob } from "@oaken/core/job/schema";
import type { JobDocument } from "@oaken/core/job/document";
import { materialById } from "@oaken/core/cutters/materials";
import { Problem } from "@oaken/core/problem";
import { readJobFile, writeJobFile } from "@oaken/files/jobfile";
import { assetBytes, keepPicture } from "./assets.ts";
import { dataFolder } from "./data.ts";
import { JobRow, RevisionRow, store } from "./db.ts";
import { storageProblem, writeWhole } from "./files.ts";

export interface JobCard {
  id: string;
  name: string;
  revision: number;
  archived: boolean;
  seconds: number;
  written: number | null;
  summary: string;
  updatedAt: string;
}

const card = (r: JobRow): JobCard => ({ id: r.id, name: r.name, revision: r.revision, archived: r.archived, seconds: r.seconds, written: r.written, summary: r.summary, updatedAt: r.updatedAt.toISOString() });

const summaryOf = (d: JobDocument): string => `${d.stock.width} × ${d.stock.height} × ${d.stock.thickness} mm · ${materialById(d.stock.material).name}`;

export async function listJobs(): Promise<JobCard[]> {
  await store();
  return (await JobRow.findAll({ order: [["updatedAt", "DESC"]] })).map(card);
}

async function row(id: string): Promise<JobRow> {
  await store();
  const found = await JobRow.findByPk(id);
  if (!found) throw new Problem("no-job", "There is no such job. It may have been deleted in another window.");
  return found;
}

export async function createJob(doc: unknown, what = "created"): Promise<JobCard> {
  const job = checkJob(doc);
  const { sequelize } = await store();
  try {
    return await sequelize.transaction(async (transaction) => {
      const r = await JobRow.create({ id: randomUUID(), name: job.name, revision: 1, summary: summaryOf(job) }, { transaction });
      await RevisionRow.create({ jobId: r.id, number: 1, document: JSON.stringify(job), summary: what }, { transaction });
      return card(r);
    });
  } catch (e) {
    throw storageProblem(e);
  }
}

/** A job's newest document, or an older one, as it was stored: checked again, for the file may come from anywhere. */
export async function openJob(id: string, revision?: number): Promise<{ card: JobCard; document: JobDocument }> {
  const r = await row(id);
  const rev = await RevisionRow.findOne({ where: { jobId: id, number: revision ?? r.revision, ...(revision === undefined && { refused: false }) }, order: [["id", "DESC"]] });
  if (!rev) throw new Problem("no-revision", "There is no such revision of this job.");
  return { card: card(r), document: checkJob(JSON.parse(rev.document)) };
}

/**
 * Saves a document that was made from revision `base`. From a stale base it is refused, and kept aside: nothing is
 * merged, nothing lost. The very save that made the newest revision may come again: its answer was lost on the way.
 * @throws Problem `stale` with the number of the newest revision
 */
export async function saveJob(id: string, base: number, doc: unknown, what: string): Promise<JobCard> {
  const job = checkJob(doc);
  const { sequelize } = await store();
  await row(id);
  let stale = 0;
  try {
    const saved = await sequelize.transaction(async (transaction) => {
      const r = (await JobRow.findByPk(id, { transaction }))!;
      if (r.revision === base + 1) {
        const newest = await RevisionRow.findOne({ where: { jobId: id, number: r.revision, refused: false }, order: [["id", "DESC"]], transaction });
        if (newest?.document === JSON.stringify(job)) return card(r);
      }
      if (r.revision !== base) {
        stale = r.revision;
        await RevisionRow.create({ jobId: id, number: base, document: JSON.stringify(job), summary: `${what} (in another window)`, refused: true }, { transaction });
        return null;
      }
      await RevisionRow.create({ jobId: id, number: base + 1, document: JSON.stringify(job), summary: what.slice(0, 200) }, { transaction });
      await r.update({ revision: base + 1, name: job.name, summary: summaryOf(job) }, { transaction });
      return card(r);
    });
    if (saved) return saved;
  } catch (e) {
    throw storageProblem(e);
  }
  throw new Problem("stale", `This job was changed in another window and is at revision ${stale} there. Your state is kept in its history: open it as a new job, or load the other window's.`);
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
  const rows = await RevisionRow.findAll({ where: { jobId: id }, attributes: ["id", "number", "summary", "refused", "createdAt"], order: [["id", "DESC"]], limit: 500 });
  return rows.map((r) => ({ key: r.id, number: r.number, summary: r.summary, refused: r.refused, at: r.createdAt.toISOString() }));
}

/** Opens a copy as a job of its own: the newest state, or the revision with this key. */
export async function copyJob(id: string, key?: number): Promise<JobCard> {
  const r = await row(id);
  const rev = key === undefined ? await RevisionRow.findOne({ where: { jobId: id, number: r.revision, refused: false } }) : await RevisionRow.findOne({ where: { jobId: id, id: key } });
  if (!rev) throw new Problem("no-revision", "There is no such revision of this job.");
  const doc = JSON.parse(rev.document) as JobDocument;
  doc.name = key === undefined ? `${doc.name} copy` : `${doc.name}, revision ${rev.number}`;
  const made = await createJob(doc, key === undefined ? `copied from ${r.name}` : `opened from revision ${rev.number} of ${r.name}`);
  const picture = await thumb(id);
  if (picture) await keepThumb(made.id, picture, r.seconds);
  return made;
}

export async function patchJob(id: string, patch: { archived?: boolean; written?: number }): Promise<JobCard> {
  const r = await row(id);
  try {
    await r.update(patch, { silent: true });
  } catch (e) {
    throw storageProblem(e);
  }
  return card(r);
}

const thumbPath = (id: string): string => join(dataFolder(), "thumbs", `${id.replace(/[^0-9a-f-]/g, "")}.png`);

/** Keeps the picture of a job's proof for its card, with the time it takes. */
export async function keepThumb(id: string, png: Uint8Array, seconds: number): Promise<void> {
  const r = await row(id);
  await writeWhole(thumbPath(id), png);
  await r.update({ seconds }, { silent: true });
}

export async function thumb(id: string): Promise<Uint8Array | null> {
  return readFile(thumbPath(id)).catch(() => null);
}

/** A job with its pictures inside, for another machine. */
export async function exportJob(id: string): Promise<{ name: string; text: string }> {
  const { document } = await openJob(id);
  const assets = new Map<string, { name: string; bytes: Uint8Array }>();
  for (const n of document.nodes) if (n.asset) assets.set(n.asset.sha, { name: n.asset.name, bytes: await assetBytes(n.asset.sha) });
  return { name: document.name, text: writeJobFile({ job: document, assets }) };
}

export async function importJob(text: string): Promise<JobCard> {
  const { job, assets } = readJobFile(text);
  for (const a of assets.values()) await keepPicture(a.bytes, a.name);
  return createJob(job, "imported");
}
