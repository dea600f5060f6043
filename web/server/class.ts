import type { JobDocument, StartRules } from "@oaken/core/job/document";
import { begunFrom, usuallyOpen } from "@oaken/core/job/lock";
import { peopleFrom } from "@oaken/core/job/people";
import { Problem } from "@oaken/core/problem";
import { card, type JobCard } from "./card.ts";
import { JobRow, store } from "./db.ts";
import { createJob, openJob } from "./jobs.ts";
import { saveJob } from "./save.ts";

/** A starting job with the jobs that were begun from it. */
export interface ClassWall {
  start: JobCard;
  rules: StartRules;
  people: JobCard[];
}

const noStart = (): Problem =>
  new Problem("no-start", "This job is not a starting job. Make it one on the list of jobs first.");

async function begunRows(id: string): Promise<JobRow[]> {
  await store();
  return JobRow.findAll({ where: { begunFrom: id, archived: false } });
}

/** @throws Problem `no-job` or `no-start` */
export async function openClass(id: string): Promise<ClassWall> {
  const { card: start, document } = await openJob(id);
  if (!document.start) throw noStart();
  const people = (await begunRows(id)).map(card).sort((a, b) => (a.person ?? "").localeCompare(b.person ?? ""));
  return { start, rules: document.start, people };
}

/**
 * Makes a job a starting job, changes what it leaves open, or (null) makes it one like any other again. By itself it
 * leaves open what is each person's own.
 */
export async function setStart(id: string, rules: Partial<StartRules> | null): Promise<JobCard> {
  const { card: now, document } = await openJob(id);
  if (document.begun) throw new Problem("no-start", "A job that was begun from a starting job cannot be one itself.");
  const { start: _before, ...rest } = document;
  const changed: JobDocument = rules ? { ...rest, start: { open: usuallyOpen(document), ...rules } } : rest;
  return saveJob(id, now.revision, changed, rules ? "starting job" : "no starting job any more");
}

/**
 * A job for each person of a list, begun from a starting job. Who has one already keeps it.
 * @throws Problem `bad-class`, `no-start`
 */
export async function addPeople(id: string, list: string, className: string): Promise<JobCard[]> {
  const people = peopleFrom(list);
  const { document } = await openJob(id);
  if (!document.start) throw noStart();
  const there = await begunRows(id);
  const known = new Set(there.map((c) => `${c.class ?? ""}/${(c.person ?? "").toLocaleLowerCase()}`));
  const made: JobCard[] = [];
  for (const { name: person, stock } of people) {
    if (known.has(`${className}/${person.toLocaleLowerCase()}`)) continue;
    const doc = begunFrom(id, document, { person, stock, ...(className && { class: className }) });
    made.push(await createJob(doc, `begun from ${document.name}`));
  }
  return made;
}
