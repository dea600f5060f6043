"use client";
import { useState } from "react";
import Link from "next/link";
import { BookmarkPlus } from "lucide-react";
import type { BoardJob, JobMaking } from "@oaken/core/job/document";
import { upstreamOf } from "@oaken/core/job/graph";
import { keptHeight } from "@oaken/core/job/reuse";
import { makingKind } from "@oaken/core/makings/register";
import type { JobCard } from "../../server/card.ts";
import { api } from "../../ui/api.ts";
import { useBench, useBenchStore } from "../context.tsx";
import { cardPng } from "./lit.ts";

/** Keeps a height in the shop, by its picture's name and with a picture of itself, for other jobs to take. */
export function KeepHeight({ part }: { part: string }) {
  const store = useBenchStore();
  const drawn = useBench((s) => s.built?.makings[part]);
  const isKept = useBench((s) => s.whole.kept === true);
  const [keptAs, setKeptAs] = useState<JobCard | null>(null);
  const [isBusy, setBusy] = useState(false);
  if (isKept || drawn?.is !== "heights") return null;
  const keep = async () => {
    setBusy(true);
    try {
      const { doc } = store.getState();
      const making = doc.makings.find((m) => m.id === part)!;
      const document = keptHeight(doc, part, nameOf(doc, making));
      const made = await api<JobCard>("/api/jobs", { method: "POST", json: { document } });
      await api(`/api/jobs/${made.id}/thumb`, { method: "PUT", body: await cardPng(drawn.surface) });
      setKeptAs(made);
    } catch (e) {
      store.setState({ failed: (e as Error).message });
    } finally {
      setBusy(false);
    }
  };
  if (keptAs)
    return (
      <p role="status" className="self-center text-[12.5px] leading-4 text-soft">
        Kept in{" "}
        <Link href="/heights" className="font-semibold text-spruce underline">
          Heights
        </Link>
        .
      </p>
    );
  return (
    <button
      className="btn !h-8 !px-2"
      disabled={isBusy}
      title="Keep this height in the shop, for other jobs to take"
      onClick={() => void keep()}
    >
      <BookmarkPlus size={15} /> Keep
    </button>
  );
}

/** Its own name where a person gave it one, else its picture's. */
function nameOf(doc: BoardJob, { id, kind, name }: JobMaking): string {
  const picture = upstreamOf(doc, id, (m) => m.asset !== undefined)?.asset;
  return picture && name === makingKind(kind).title ? picture.name.replace(/\.[^.]+$/, "") : name;
}
