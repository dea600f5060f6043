import { copyOf } from "../copy.ts";
import { makingKind } from "../makings/register.ts";
import { documentOf } from "./boards.ts";
import type { BoardJob, JobDocument, JobMaking } from "./document.ts";
import { freeId } from "./edit.ts";

/** A making with all that it is made from, in the order of the job. */
function withSources(job: BoardJob, id: string): JobMaking[] {
  const wanted = new Set([id]);
  const add = (m: JobMaking) => {
    for (const from of Object.values(m.reads)) {
      wanted.add(from);
      const source = job.makings.find((n) => n.id === from);
      if (source) add(source);
    }
  };
  add(job.makings.find((m) => m.id === id)!);
  return job.makings.filter((m) => wanted.has(m.id));
}

/** A height kept in the shop: a job of its own without cuts, from which other jobs take it. */
export function keptHeight(job: BoardJob, id: string, name: string): JobDocument {
  const makings = copyOf(withSources(job, id));
  const last = makings.findIndex((m) => m.id === id);
  makings.push({ ...makings.splice(last, 1)[0], name });
  const { naming: _naming, start: _start, begun: _begun, ...own } = job;
  return documentOf({ ...own, name, makings, cuts: [], kept: true });
}

/**
 * Takes a kept height into a job: its makings under names of their own, its size and place left to the new board.
 * @returns the height's id
 */
export function takeHeight(job: BoardJob, kept: JobDocument): string {
  const ids = new Map<string, string>();
  const taken = kept.makings.map((m) => {
    const id = freeId(job, m.kind);
    ids.set(m.id, id);
    const settings = Object.fromEntries(Object.entries(m.settings).filter(([key]) => !isPlace(m, key)));
    const own = { ...copyOf(m), id, settings };
    job.makings.push(own);
    return own;
  });
  for (const m of taken)
    m.reads = Object.fromEntries(Object.entries(m.reads).map(([name, from]) => [name, ids.get(from) ?? from]));
  return taken[taken.length - 1].id;
}

/** Whether a setting says how large something is on its board, or where it lies. */
const isPlace = ({ kind }: JobMaking, key: string): boolean =>
  key === makingKind(kind).handles.width || PLACES.includes(key);
const PLACES: readonly string[] = ["x", "y"];
