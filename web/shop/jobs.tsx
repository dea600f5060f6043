"use client";
import { useCallback, useEffect, useState } from "react";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { Archive, ArchiveRestore, Copy, Download, Search, Type, Users } from "lucide-react";
import { spoken } from "@oaken/core/speech";
import { formatTime } from "@oaken/core/units";
import { prepareSpare, REST_MS } from "../compute/spare.ts";
import { useUnit } from "../ui/use-unit.ts";
import type { JobCard } from "../server/card.ts";
import { api } from "../ui/api.ts";
import { Pick } from "../ui/pick.tsx";
import { type Served, takeServed } from "../ui/served.ts";
import { Toggle } from "../ui/toggle.tsx";
import { ChooseFile, DropAnywhere, PICTURES, useTaking } from "./drop.tsx";
import { ProofPicture } from "./proof-picture.tsx";
import { ShopHeader } from "./shop-header.tsx";

const SORTS = { changed: "last changed", name: "name", time: "machining time" } as const;

/** Home: every job as a card with the picture of its proof; or the heights that are kept for jobs to take. */
export function JobsPage({ here = "jobs", first }: { here?: "jobs" | "heights"; first: Served<JobCard[]> | null }) {
  const isKept = here === "heights";
  const [unit] = useUnit();
  const [jobs, setJobs] = useState<JobCard[] | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const [search, setSearch] = useState("");
  const [sort, setSort] = useState<keyof typeof SORTS>("changed");
  const [shelf, setShelf] = useState<"current" | "archive">("current");
  const taking = useTaking();
  const load = useCallback(() => api<JobCard[]>("/api/jobs").then(setJobs, (e: Error) => setWrong(e.message)), []);
  useEffect(() => {
    const sent = takeServed(first);
    if (sent) setJobs(sent);
    else void load();
  }, [first, load]);
  const act = (work: Promise<unknown>) => work.then(load, (e: Error) => setWrong(e.message));

  const router = useRouter();
  /** Others begin from this job from now on: their wall is the next thing wanted. */
  const makeStart = (id: string) =>
    api(`/api/jobs/${id}/class`, { method: "PUT", json: { start: {} } }).then(
      () => router.push(`/class/${id}`),
      (e: Error) => setWrong(e.message),
    );
  /** A carved sign of words alone: they are written on the bench. */
  const beginWithWords = () =>
    api<JobCard>("/api/jobs", { method: "POST", json: { words: "sign" } }).then(
      (made) => router.push(`/job/${made.id}`),
      (e: Error) => setWrong(e.message),
    );
  const words = search.toLowerCase().split(/\s+/).filter(Boolean);
  const shown = (jobs ?? [])
    .filter(
      (j) =>
        // What was begun from a starting job hangs on that one's wall.
        (j.begunFrom === null || words.length > 0) &&
        j.isKept === isKept &&
        j.archived === (shelf === "archive") &&
        words.every((w) => `${j.name} ${j.summary}`.toLowerCase().includes(w)),
    )
    .sort((a, b) =>
      sort === "name"
        ? a.name.localeCompare(b.name)
        : sort === "time"
          ? b.seconds - a.seconds
          : b.updatedAt.localeCompare(a.updatedAt),
    );
  // Whoever looks at the jobs will open one: the one under the hand or, until a hand comes, the first.
  const [near, setNear] = useState<string | null>(null);
  const next = near ?? shown[0]?.id;
  useEffect(() => (next ? prepareSpare(next, near ? REST_MS : 0) : undefined), [next, near]);
  return (
    <div className="min-h-full">
      <DropAnywhere take={(f) => void taking.takeAll(f)} />
      <ShopHeader here={here} />
      <main className="mx-auto max-w-[1180px] p-6">
        <div className="mb-5 flex flex-wrap items-center gap-3">
          <h1 className="mr-2 text-[24px]">{isKept ? "Heights" : "Jobs"}</h1>
          <label className="box flex w-60 items-center gap-2 !font-sans">
            <Search size={15} className="text-faint" />
            <input
              aria-label={isKept ? "Search heights" : "Search jobs"}
              placeholder={isKept ? "Name" : "Name or material"}
              className="w-full bg-transparent outline-none placeholder:text-faint"
              value={search}
              onChange={(e) => setSearch(e.target.value)}
            />
          </label>
          <Pick
            label="Sort by"
            value={sort}
            options={Object.entries(SORTS).map(([value, label]) => ({ value, label }))}
            onChange={(v) => setSort(v as keyof typeof SORTS)}
          />
          <Toggle
            label="Shelf"
            value={shelf}
            options={[
              { value: "current", label: "current" },
              { value: "archive", label: "archive" },
            ]}
            onChange={setShelf}
          />
          <span className="flex-1" />
          <ChooseFile take={(f) => void taking.takeAll(f)} label="Import a job file" accept=".json" />
          {!isKept && (
            <>
              <button className="btn" onClick={() => void beginWithWords()}>
                <Type size={16} /> Begin with words
              </button>
              <ChooseFile
                take={(f) => void taking.takeAll(f)}
                label="Begin with a picture"
                accept={PICTURES}
                primary
                several
              />
            </>
          )}
        </div>
        {(taking.wrong ?? wrong) && (
          <p role="alert" className="mb-4 rounded-md border border-danger/40 bg-danger/5 p-3">
            {taking.wrong ?? wrong}
          </p>
        )}
        {taking.busy && (
          <p role="status" className="catching-up mb-4 rounded-md border border-line p-3">
            {taking.busy}
          </p>
        )}
        {!jobs && !wrong && <p className="text-soft">Loading the jobs …</p>}
        <ul className="grid grid-cols-[repeat(auto-fill,minmax(268px,1fr))] gap-4">
          {shown.map((j) => (
            <li
              key={j.id}
              className="card group overflow-hidden shadow-card"
              onPointerEnter={() => setNear(j.id)}
              onFocus={() => setNear(j.id)}
            >
              <Link href={`/job/${j.id}`} className="block">
                <ProofPicture id={j.id} revision={j.revision} name={j.name} />
                <div className="px-3 pt-2.5">
                  <div className="truncate font-head text-[16px] font-semibold">{j.name}</div>
                  <div className="flex justify-between gap-2 text-soft">
                    <span className="truncate">{spoken(j.summary, unit)}</span>
                    <span className="shrink-0 text-[13px]">
                      {new Date(j.updatedAt).toLocaleDateString([], { day: "numeric", month: "short" })}
                    </span>
                  </div>
                </div>
              </Link>
              <div className="flex items-center gap-1 px-3 pb-2 pt-0.5 text-[13px] text-soft">
                <span className="num">{timeOf(j)}</span>
                <span className="flex-1" />
                {j.isStart ? (
                  <Link
                    className="btn btn-plain !h-7 !w-7 !p-0 !text-spruce"
                    aria-label={`Everybody's pieces from ${j.name}`}
                    title="A starting job: everybody's pieces"
                    href={`/class/${j.id}`}
                  >
                    <Users size={14} />
                  </Link>
                ) : (
                  j.begunFrom === null &&
                  !j.isKept && (
                    <button
                      className="btn btn-plain !h-7 !w-7 !p-0"
                      aria-label={`Let others begin from ${j.name}`}
                      title="Let others begin from it"
                      onClick={() => void makeStart(j.id)}
                    >
                      <Users size={14} />
                    </button>
                  )
                )}
                <button
                  className="btn btn-plain !h-7 !w-7 !p-0"
                  aria-label={`Duplicate ${j.name}`}
                  title="Duplicate"
                  onClick={() => void act(api(`/api/jobs/${j.id}/copy`, { method: "POST", json: {} }))}
                >
                  <Copy size={14} />
                </button>
                <a
                  className="btn btn-plain !h-7 !w-7 !p-0"
                  aria-label={`Export ${j.name} as a job file`}
                  title="Export as a job file"
                  href={`/api/jobs/${j.id}/file`}
                  download
                >
                  <Download size={14} />
                </a>
                <button
                  className="btn btn-plain !h-7 !w-7 !p-0"
                  aria-label={`${j.archived ? "Restore" : "Archive"} ${j.name}`}
                  title={j.archived ? "Restore" : "Archive"}
                  onClick={() =>
                    void act(api(`/api/jobs/${j.id}`, { method: "PATCH", json: { archived: !j.archived } }))
                  }
                >
                  {j.archived ? <ArchiveRestore size={14} /> : <Archive size={14} />}
                </button>
              </div>
            </li>
          ))}
        </ul>
        {jobs && shown.length === 0 && (
          <div
            className={
              "grid place-items-center rounded-md border-2 border-dashed border-line py-20 text-center text-soft"
            }
          >
            {jobs.length === 0 || (shelf === "current" && !search) ? (
              <p>
                {isKept
                  ? "Nothing is kept yet. On the bench, a height's slip has Keep: other jobs take it from here."
                  : "Drop a picture anywhere on this page: a logo, a line drawing, a scan, a photo."}
              </p>
            ) : (
              <p>{search ? `Nothing here is called "${search}".` : "The archive is empty."}</p>
            )}
          </div>
        )}
      </main>
    </div>
  );
}

/** How long a job takes; a height that is kept takes no time. */
function timeOf({ isKept, seconds }: JobCard): string {
  if (isKept) return "";
  return seconds > 0 ? formatTime(seconds) : "not yet proved";
}
