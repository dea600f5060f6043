import { boardJob, boardPrefixes } from "@oaken/core/job/boards";
import type { JobDocument } from "@oaken/core/job/document";
import { fileName } from "@oaken/core/output/gcode/names";
import type { Desk } from "../../compute/desk.ts";
import type { JobCard } from "../../server/card.ts";
import { api } from "../../ui/api.ts";

export interface ClassWritten {
  /** path in the archive → bytes */
  files: Record<string, Uint8Array>;
  /** who got nothing, and why */
  left: { person: string; why: string }[];
}

/** Where people's files go: each into a folder of its own, or all into one, their names behind the person's. */
export type ClassLayout = "folders" | "together";

/**
 * Programs and setup sheets of every person's job.
 * @param said tells how many are done
 */
export async function writeClass(
  people: readonly JobCard[],
  desk: Desk,
  said: (done: number, person: string) => void,
  layout: ClassLayout = "folders",
): Promise<ClassWritten> {
  const out: ClassWritten = { files: {}, left: [] };
  const folders = new Set<string>();
  for (const [i, card] of people.entries()) {
    const person = card.person ?? card.name;
    said(i, person);
    if (!card.hasPicture) {
      out.left.push({ person, why: "no picture yet" });
      continue;
    }
    try {
      const { document } = await api<{ document: JobDocument }>(`/api/jobs/${card.id}`);
      const folder = freshFolder(person, folders);
      const before = layout === "folders" ? "" : `${folder}-`;
      const { files, stop } = await filesOf(document, { revision: card.revision, before }, desk);
      if (stop) {
        out.left.push({ person, why: stop });
        continue;
      }
      for (const [name, bytes] of files) out.files[layout === "folders" ? `${folder}/${name}` : name] = bytes;
      await api(`/api/jobs/${card.id}`, { method: "PATCH", json: { written: card.revision } });
    } catch (e) {
      out.left.push({ person, why: (e as Error).message });
    }
  }
  said(people.length, "");
  return out;
}

/** A folder's name for a person, unlike all others. */
function freshFolder(person: string, taken: Set<string>): string {
  const plain = fileName(person);
  let name = plain;
  for (let n = 2; taken.has(name); n++) name = `${plain}-${n}`;
  taken.add(name);
  return name;
}

/** Cells of each proof: enough for what is found in it and for the sheet's picture, and quick for forty. */
const CELLS = 300_000;

/**
 * Programs and sheet of every board of a job; or the first finding that stops one.
 * @param of its revision, and what stands before the names of its files: it counts among the letters that a controller
 * shows
 */
async function filesOf(document: JobDocument, of: { revision: number; before: string }, desk: Desk) {
  const now = new Date().toISOString();
  const prefixes = boardPrefixes(document).map((prefix) => of.before + prefix);
  const files: [string, Uint8Array][] = [];
  for (const [i, { id }] of document.boards.entries()) {
    const job = boardJob(document, id);
    const from = `revision ${of.revision}, ${now.slice(0, 16).replace("T", " ")}`;
    const writing = { from, date: now.slice(0, 10), prefix: prefixes[i], cells: CELLS };
    const written = await desk.outputs(job, writing);
    const stop = written.findings.find((f) => f.severity === "stop");
    if (stop) return { files: [], stop: stop.message };
    const programs = written.files.flatMap((f) => (f.program ? [{ ...f, cuts: f.program.cuts }] : []));
    for (const p of programs) files.push([p.name, p.bytes]);
    const sheet = programs.map(({ name, cuts }) => ({ name, cuts }));
    files.push([`${prefixes[i]}sheet.pdf`, await desk.sheet(job, writing, sheet)]);
  }
  return { files, stop: null };
}
