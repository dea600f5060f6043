import { type Transaction } from "sequelize";
import type { JobDocument } from "@oaken/core/job/document";
import { lockFault } from "@oaken/core/job/lock";
import { checkJob } from "@oaken/core/job/schema";
import { Problem } from "@oaken/core/problem";
import { checkPictures, picturesOf } from "./assets.ts";
import { card, type JobCard, TOLD, toldOf } from "./card.ts";
import { JobRow, RevisionRow, store, write } from "./db.ts";
import { isJobId, noJob, openJob } from "./jobs.ts";
import { FIRST_SHOP } from "@oaken/core/shop/first/shop";

/** A save that waits for its turn. */
interface Save {
  id: string;
  base: number;
  job: JobDocument;
  document: string;
  what: string;
  done(card: JobCard): void;
  failed(e: unknown): void;
}

/** What became of a save: the job's card, or the revision that is newer than its base. */
type Outcome = JobCard | Problem;

const global = globalThis as unknown as { oakenSaves?: Save[] };
const waiting = (global.oakenSaves ??= []);
/** Saves taken in one transaction at most. */
const TOGETHER = 100;

/**
 * Saves a document that was made from revision `base`. From a stale base it is refused, and kept aside: nothing is
 * merged, nothing lost. The very save that made the newest revision may come again: its answer was lost on the way.
 *
 * Saves that wait for the one under way are then made in one transaction together: each statement of the database
 * costs a millisecond of waiting for its thread, and each transaction one flush of the disk.
 * @throws Problem `stale` with the number of the newest revision
 */
export async function saveJob(id: string, base: number, doc: unknown, what: string): Promise<JobCard> {
  const job = checkJob(doc, FIRST_SHOP);
  if (!isJobId(id)) throw noJob();
  await checkPictures(job, async () => picturesOf((await openJob(id)).document));
  await checkLock(id, job);
  await store();
  const saved = new Promise<JobCard>((done, failed) =>
    waiting.push({ id, base, job, document: JSON.stringify(job), what: what.slice(0, 200), done, failed }),
  );
  if (waiting.length === 1) void saveWaiting();
  return saved;
}

/** A job that was begun from a starting job keeps what that one locks, whatever a request says of it. */
async function checkLock(id: string, job: JobDocument): Promise<void> {
  await store();
  const row = await JobRow.findByPk(id);
  if (!row?.begunFrom) return;
  const fault = lockFault((await openJob(id)).document, job);
  if (fault) throw new Problem("locked", fault);
}

async function saveWaiting(): Promise<void> {
  let taken: Save[] = [];
  try {
    const outcomes = await write((transaction) => {
      taken = waiting.splice(0, TOGETHER);
      if (waiting.length > 0) void saveWaiting();
      return saveTogether(taken, transaction);
    });
    taken.forEach(({ done, failed }, k) => {
      const outcome = outcomes[k];
      if (outcome instanceof Problem) failed(outcome);
      else done(outcome);
    });
  } catch (e) {
    // The transaction did not begin, or nothing of it was kept.
    for (const { failed } of taken.length > 0 ? taken : waiting.splice(0)) failed(e);
  }
}

async function saveTogether(saves: readonly Save[], transaction: Transaction): Promise<Outcome[]> {
  const rows = await JobRow.findAll({ where: { id: [...new Set(saves.map((s) => s.id))] }, transaction });
  const byId = new Map(rows.map((r) => [r.id, r]));
  const revisions: { jobId: string; number: number; document: string; summary: string; refused: boolean }[] = [];
  const outcomes: Outcome[] = [];
  for (const { id, base, job, document, what } of saves) {
    const r = byId.get(id);
    if (!r) outcomes.push(noJob());
    else if (r.revision === base) {
      revisions.push({ jobId: id, number: base + 1, document, summary: what, refused: false });
      r.set({ revision: base + 1, ...toldOf(job), updatedAt: new Date() });
      outcomes.push(card(r));
    } else if (r.revision === base + 1 && (await newestOf(id, base + 1)) === document) outcomes.push(card(r));
    else {
      revisions.push({ jobId: id, number: base, document, summary: `${what} (in another window)`, refused: true });
      outcomes.push(stale(r.revision));
    }
  }
  async function newestOf(id: string, number: number): Promise<string | undefined> {
    const justNow = revisions.find((v) => v.jobId === id && v.number === number && !v.refused);
    if (justNow) return justNow.document;
    return (await RevisionRow.findOne({ where: { jobId: id, number, refused: false }, transaction }))?.document;
  }
  await RevisionRow.bulkCreate(revisions, { transaction });
  const changed = rows.filter((r) => r.changed()).map((r) => r.get());
  await JobRow.bulkCreate(changed, { updateOnDuplicate: ["revision", ...TOLD, "updatedAt"], transaction });
  return outcomes;
}

const stale = (newest: number): Problem =>
  new Problem(
    "stale",
    `This job was changed in another window and is at revision ${newest} there. Your state is kept in its history: ` +
      "open it as a new job, or load the other window's.",
  );
