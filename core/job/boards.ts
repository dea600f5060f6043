import { copyOf } from "../copy.ts";
import { fileName } from "../output/gcode/names.ts";
import {
  type Board,
  type BoardJob,
  JOB_FORMAT,
  JOB_VERSION,
  type JobDocument,
  type JobMaking,
  type Reads,
  sharedOf,
} from "./document.ts";

/**
 * A job on the board with this id, or on its first. It shares its parts with the document: who changes it puts it back
 * with {@link putBoard}.
 */
export function boardJob(doc: JobDocument, id?: string): BoardJob {
  const { id: own, name, stock, cuts, cell } = doc.boards.find((b) => b.id === id) ?? doc.boards[0];
  return { ...sharedOf(doc), board: { id: own, name }, stock, cuts, cell };
}

/** Puts what a board's job says into the document that it is from. */
export function putBoard(doc: JobDocument, job: BoardJob): void {
  for (const key of ["drawing", "naming", "start", "begun"] as const) delete doc[key];
  Object.assign(doc, sharedOf(job));
  const own = doc.boards.find((b) => b.id === job.board.id)!;
  Object.assign(own, { name: job.board.name, stock: job.stock, cuts: job.cuts, cell: job.cell });
  // A making that one board's change took out is gone for the cuts of all.
  for (const board of doc.boards) for (const cut of board.cuts) dropMissing(cut, job.makings);
}

/** A document of one board. */
export function documentOf(job: BoardJob): JobDocument {
  const { board, stock, cuts, cell } = job;
  return {
    format: JOB_FORMAT,
    version: JOB_VERSION,
    ...sharedOf(job),
    boards: [{ ...board, stock, cuts, cell }],
  };
}

/** Takes out of a part's inputs those that are no longer there. */
export function dropMissing(part: { reads: Reads }, makings: readonly JobMaking[]): void {
  for (const [name, id] of Object.entries(part.reads)) if (!makings.some((m) => m.id === id)) delete part.reads[name];
}

/** Names of parts follow this: "Board 2". */
const numbered = (boards: readonly Board[]): string => {
  for (let k = boards.length + 1; ; k++) if (!boards.some((b) => b.name === `Board ${k}`)) return `Board ${k}`;
};

/** One more board, of stock like that of another, with nothing cut from it yet. @returns its id */
export function addBoard(doc: JobDocument, like: string): string {
  const from = doc.boards.find((b) => b.id === like) ?? doc.boards[0];
  // As long as there was one board, nobody needed to tell it from others.
  if (doc.boards.length === 1 && from.name === "Board") from.name = "Board 1";
  const id = freeBoard(doc);
  const stock = copyOf(from.stock);
  doc.boards.splice(doc.boards.indexOf(from) + 1, 0, { id, name: numbered(doc.boards), stock, cuts: [], cell: 0 });
  return id;
}

/** The same board once more, with its cuts. @returns its id */
export function duplicateBoard(doc: JobDocument, id: string): string {
  const twin = addBoard(doc, id);
  const from = doc.boards.find((b) => b.id === id)!;
  const made = doc.boards.find((b) => b.id === twin)!;
  Object.assign(made, { cuts: copyOf(from.cuts), cell: from.cell });
  return twin;
}

/** Takes out a board with its cuts; the last one stays. */
export function removeBoard(doc: JobDocument, id: string): void {
  if (doc.boards.length > 1) doc.boards = doc.boards.filter((b) => b.id !== id);
}

function freeBoard(doc: JobDocument): string {
  for (let k = 2; ; k++) if (!doc.boards.some((b) => b.id === `board-${k}`)) return `board-${k}`;
}

/** What the names of each board's files begin with, so that no two are alike: nothing where there is one board. */
export function boardPrefixes({ boards }: JobDocument): string[] {
  if (boards.length === 1) return [""];
  const slugs = boards.map((b) => fileName(b.name));
  return slugs.map((slug, i) => (slugs.filter((s) => s === slug).length > 1 ? `${slug}-${i + 1}-` : `${slug}-`));
}
