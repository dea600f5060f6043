"use client";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { useRef, useState } from "react";
import type { JobDocument, StartRules } from "@oaken/core/job/document";
import { setPicture } from "@oaken/core/job/lock";
import { formatTime } from "@oaken/core/units";
import type { JobCard } from "../../server/card.ts";
import { api, uploadPicture } from "../../ui/api.ts";
import { PICTURES } from "../drop.tsx";
import { ProofPicture } from "../proof-picture.tsx";
import { STATES, stateOf } from "./state.ts";

interface PersonCardProps {
  of: JobCard;
  open: StartRules["open"];
  changed(): void;
}

/** A person's piece: its proof, how far it is, and the way to it. */
export function PersonCard({ of: card, open, changed }: PersonCardProps) {
  const [wrong, setWrong] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const router = useRouter();
  const file = useRef<HTMLInputElement>(null);
  const state = stateOf(card);
  const person = card.person ?? card.name;
  const take = async (picture: File) => {
    setBusy(true);
    setWrong(null);
    try {
      const asset = await uploadPicture(picture);
      const opened = await api<{ card: { revision: number }; document: JobDocument }>(`/api/jobs/${card.id}`);
      setPicture(opened.document, asset);
      const json = { base: opened.card.revision, document: opened.document, summary: "picture" };
      await api(`/api/jobs/${card.id}`, { method: "PUT", json });
      router.push(`/job/${card.id}`);
    } catch (e) {
      setWrong((e as Error).message);
      setBusy(false);
      changed();
    }
  };
  return (
    <li className="card overflow-hidden shadow-card">
      <Link href={`/job/${card.id}`} className="block" aria-label={`${person}: ${state}`}>
        <ProofPicture id={card.id} revision={card.revision} name={person} />
        <div className="flex items-baseline justify-between gap-2 px-3 pt-2">
          <span className="truncate font-head text-[15px] font-semibold">{person}</span>
          <span className="shrink-0 text-[13px] text-soft">{card.class}</span>
        </div>
      </Link>
      <div className="flex min-h-[38px] items-center justify-between gap-2 px-3 pb-2 text-[13px]">
        <span className={`whitespace-nowrap font-semibold ${STATES[state]}`}>
          {state === "to mend" ? `${card.stops} to mend` : state}
        </span>
        {state === "no picture" && open.includes("picture") ? (
          <button
            className="btn !h-7"
            aria-label={`Choose a picture for ${person}`}
            disabled={busy}
            onClick={() => file.current?.click()}
          >
            {busy ? "Sending …" : "Choose one"}
          </button>
        ) : (
          <span className="num text-soft">{card.seconds > 0 ? formatTime(card.seconds) : ""}</span>
        )}
        <input
          ref={file}
          type="file"
          hidden
          accept={PICTURES}
          aria-label={`Picture of ${person}`}
          onChange={(e) => {
            const [picked] = e.target.files ?? [];
            e.target.value = "";
            if (picked) void take(picked);
          }}
        />
      </div>
      {wrong && (
        <p role="alert" className="px-3 pb-2 text-[12.5px] text-danger">
          {wrong}
        </p>
      )}
    </li>
  );
}
