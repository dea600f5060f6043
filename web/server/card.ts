import type { JobDocument } from "@oaken/core/job/document";
import { hasOwnPicture } from "@oaken/core/job/lock";
import type { JobRow } from "./db.ts";

/** A job as the list shows it. */
export interface JobCard {
  id: string;
  name: string;
  revision: number;
  archived: boolean;
  seconds: number;
  written: number | null;
  summary: string;
  isStart: boolean;
  /** holds a height for other jobs */
  isKept: boolean;
  begunFrom: string | null;
  person: string | null;
  class: string | null;
  hasPicture: boolean;
  stops: number;
  updatedAt: string;
}

export function card(r: JobRow): JobCard {
  const { id, name, revision, archived, seconds, written, summary } = r;
  const { isStart, isKept, begunFrom, person, hasPicture, stops } = r;
  const whose = { isStart, isKept, begunFrom, person, class: r.class, hasPicture, stops };
  return { id, name, revision, archived, seconds, written, summary, ...whose, updatedAt: r.updatedAt.toISOString() };
}

/** What of a document its row repeats, so that lists need not read documents. */
export const toldOf = (job: JobDocument) => ({
  name: job.name,
  summary: summaryOf(job),
  isStart: job.start !== undefined,
  isKept: job.kept === true,
  begunFrom: job.begun?.id ?? null,
  person: job.naming?.person ?? null,
  class: job.naming?.class ?? null,
  hasPicture: hasOwnPicture(job),
});
/** The columns of {@link toldOf}. */
export const TOLD = ["name", "summary", "isStart", "isKept", "begunFrom", "person", "class", "hasPicture"] as const;

/** A job's stock in one line: that of its first board, and how many more there are. */
export function summaryOf({ boards: [{ stock }, ...more] }: JobDocument): string {
  const size = `${stock.width} × ${stock.height} × ${stock.thickness} mm`;
  return [size, stock.material.name, more.length > 0 && `${1 + more.length} boards`].filter(Boolean).join(" · ");
}
