import type { JobDocument } from "@oaken/core/job/document";
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
  updatedAt: string;
}

export function card(r: JobRow): JobCard {
  const { id, name, revision, archived, seconds, written, summary } = r;
  return { id, name, revision, archived, seconds, written, summary, updatedAt: r.updatedAt.toISOString() };
}

/** A job's stock in one line: that of its first board, and how many more there are. */
export function summaryOf({ boards: [{ stock }, ...more] }: JobDocument): string {
  const size = `${stock.width} × ${stock.height} × ${stock.thickness} mm`;
  return [size, stock.material.name, more.length > 0 && `${1 + more.length} boards`].filter(Boolean).join(" · ");
}
