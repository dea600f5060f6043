"use client";
import { Hand, X } from "lucide-react";
import { type JobCut, STOPS } from "@oaken/core/job/document";
import { useActions } from "../context.tsx";

/** A pause between two cuts, with what to do in it. */
export function StopCard({ cut }: { cut: JobCut }) {
  const { select, change } = useActions();
  const stop = cut.stop!;
  return (
    <div
      className={
        "relative flex h-[74px] w-[92px] shrink-0 items-center rounded-md border border-dashed border-amber " +
        "bg-raised"
      }
      title={stop.note || STOPS[stop.what]}
    >
      <button
        className="flex h-full min-w-0 flex-1 flex-col items-center justify-center px-1.5 text-center"
        onClick={() => select(cut.id)}
      >
        <Hand size={16} className="text-amber" aria-hidden="true" />
        <span className="max-w-full truncate text-[12.5px] font-semibold leading-4">{STOPS[stop.what]}</span>
        <span className="line-clamp-2 text-[11.5px] leading-[13px] text-soft">{stop.note}</span>
      </button>
      <button
        className="absolute right-0 top-0 grid h-7 w-7 place-items-center rounded text-soft hover:bg-sunk"
        aria-label={`Remove the stop before ${cut.name}`}
        title="Remove the stop"
        onClick={() =>
          change(`remove the stop before ${cut.name}`, (d) => void delete d.cuts.find((c) => c.id === cut.id)!.stop)
        }
      >
        <X size={13} />
      </button>
    </div>
  );
}
