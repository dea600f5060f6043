"use client";
import { useState } from "react";
import { paceIn, withPace } from "@oaken/core/cutters/machine";
import type { JobCut } from "@oaken/core/job/document";
import type { Kept } from "../server/shop.ts";
import { api } from "../ui/api.ts";
import { useActions, useBench } from "./context.tsx";

/** Offers to keep the pace that was set for a cut: what else is cut of that material on that machine begins with it. */
export function RememberPace({ cut }: { cut: JobCut }) {
  const { change } = useActions();
  const machine = useBench((s) => s.doc.machine);
  const material = useBench((s) => s.doc.stock.material);
  const [wrong, setWrong] = useState<string | null>(null);
  const pace = cut.settings.pace;
  if (typeof pace !== "number" || pace === (paceIn(machine, material.id) ?? 1)) return null;
  const remember = async () => {
    setWrong(null);
    try {
      const kept = await api<Kept[]>("/api/shop/machines");
      const mine = kept.find((k) => k.entry.id === machine.id);
      if (mine) {
        const entry = withPace(mine.entry as Kept["entry"] & { paces?: string }, material.id, pace);
        await api("/api/shop/machines", { method: "PUT", json: { entry, retired: mine.retired, base: mine.version } });
      }
      change("pace remembered", (d) => {
        d.machine = withPace(d.machine, material.id, pace);
        delete d.cuts.find((c) => c.id === cut.id)!.settings.pace;
      });
    } catch (e) {
      setWrong((e as Error).message);
    }
  };
  return (
    <div className="mx-3 border-t border-line py-2 text-[12.5px] leading-[17px]">
      <p className="flex items-center justify-between gap-2 text-soft">
        <span>
          {Math.round(100 * pace)} % for {material.name.toLowerCase()} on the {machine.name.toLowerCase()} from now on?
        </span>
        <button type="button" className="btn !h-7 shrink-0" onClick={() => void remember()}>
          Remember
        </button>
      </p>
      {wrong && <p className="mt-1 text-danger">{wrong}</p>}
    </div>
  );
}
