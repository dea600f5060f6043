"use client";
import { useEffect, useState } from "react";
import { DropdownMenu } from "radix-ui";
import type { JobDocument } from "@oaken/core/job/document";
import { takeHeight } from "@oaken/core/job/reuse";
import type { JobCard } from "../server/card.ts";
import { api } from "../ui/api.ts";
import { useActions, useBenchStore } from "./context.tsx";

/** The heights that the shop keeps, as entries of a menu, each with its picture: one is taken into this job. */
export function KeptHeights() {
  const store = useBenchStore();
  const { change, select } = useActions();
  const [kept, setKept] = useState<JobCard[] | null>(null);
  useEffect(() => {
    const here = store.getState().id;
    api<JobCard[]>("/api/jobs").then(
      (jobs) => setKept(jobs.filter((j) => j.isKept && !j.archived && j.id !== here)),
      (e: Error) => store.setState({ failed: e.message }),
    );
  }, [store]);
  const take = async ({ id, name }: JobCard) => {
    try {
      const { document } = await api<{ document: JobDocument }>(`/api/jobs/${id}`);
      let taken = "";
      change(`take ${name}`, (d) => void (taken = takeHeight(d, document)));
      select(taken);
    } catch (e) {
      store.setState({ failed: (e as Error).message });
    }
  };
  if (!kept) return <p className="p-2 text-[13px] text-soft">Looking …</p>;
  if (kept.length === 0)
    return (
      <p className="p-2 text-[13px] leading-[18px] text-soft">
        Nothing is kept yet. A height&apos;s slip has <b>Keep</b>: every job can take it from here then.
      </p>
    );
  return kept.map((j) => (
    <DropdownMenu.Item
      key={j.id}
      className="flex cursor-pointer items-center gap-2.5 rounded p-1.5 outline-none data-[highlighted]:bg-sunk"
      onSelect={() => void take(j)}
    >
      <img
        src={`/api/jobs/${j.id}/thumb?r=${j.revision}`}
        alt=""
        className="h-12 w-[72px] shrink-0 rounded object-cover"
      />
      <span className="min-w-0 break-words font-semibold leading-4">{j.name}</span>
    </DropdownMenu.Item>
  ));
}
