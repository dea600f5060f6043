"use client";
import { useState } from "react";
import { paceIn, withPace } from "@oaken/core/cutters/machine";
import type { BoardJob, JobCut, JobMaking } from "@oaken/core/job/document";
import { makingKind } from "@oaken/core/makings/register";
import type { Kept } from "../server/shop.ts";
import { api } from "../ui/api.ts";
import { useActions, useBench, useSpoken } from "./context.tsx";

/** Offers to keep the pace that was set for a cut: what else is cut of that material on that machine begins with it. */
export function RememberPace({ cut }: { cut: JobCut }) {
  const machine = useBench((s) => s.doc.machine);
  const material = useBench((s) => s.doc.stock.material);
  const pace = cut.settings.pace;
  if (typeof pace !== "number" || pace === (paceIn(machine, material.id) ?? 1)) return null;
  const on = `${material.name.toLowerCase()} on the ${machine.name.toLowerCase()}`;
  return (
    <Remember
      asked={`${Math.round(100 * pace)} % for ${on} from now on?`}
      name="pace remembered"
      table="machines"
      id={machine.id}
      altered={(entry) => withPace(entry as typeof entry & { paces?: string }, material.id, pace)}
      edit={(d) => {
        d.machine = withPace(d.machine, material.id, pace);
        delete d.cuts.find((c) => c.id === cut.id)!.settings.pace;
      }}
    />
  );
}

/** Offers to keep a sheet's light law, fitted or typed, with its material: the next sheet of it begins with that. */
export function RememberLight({ making }: { making: JobMaking }) {
  const material = useBench((s) => s.doc.stock.material);
  const lambda = useBench((s) => Number(s.built?.resolved[making.id]?.lambda?.value));
  const isOwn = making.settings.lambda !== undefined || making.settings.measured !== undefined;
  if (!makingKind(making.kind).glows || !isOwn || !(lambda > 0) || lambda === material.lambda) return null;
  return (
    <Remember
      asked={`λ of ${lambda} mm for ${material.name.toLowerCase()} from now on?`}
      name="light law remembered"
      table="materials"
      id={material.id}
      altered={(entry) => ({ ...entry, lambda })}
      edit={(d) => {
        d.stock.material = { ...d.stock.material, lambda };
        const { settings } = d.makings.find((m) => m.id === making.id)!;
        delete settings.lambda;
        delete settings.measured;
      }}
    />
  );
}

/** One figure of this job offered to the shop: kept in its table, and in the job's own copy of the entry. */
function Remember({
  asked,
  name,
  table,
  id,
  altered,
  edit,
}: {
  asked: string;
  /** the step of undo */
  name: string;
  table: "machines" | "materials";
  /** of the entry; one that is no longer in the table is altered in the job alone */
  id: string;
  altered(entry: Kept["entry"]): object;
  edit(job: BoardJob): void;
}) {
  const { change } = useActions();
  const say = useSpoken();
  const [wrong, setWrong] = useState<string | null>(null);
  const remember = async () => {
    setWrong(null);
    try {
      const mine = (await api<Kept[]>(`/api/shop/${table}`)).find((k) => k.entry.id === id);
      if (mine) {
        const json = { entry: altered(mine.entry), retired: mine.retired, base: mine.version };
        await api(`/api/shop/${table}`, { method: "PUT", json });
      }
      change(name, edit);
    } catch (e) {
      setWrong((e as Error).message);
    }
  };
  return (
    <div className="mx-3 border-t border-line py-2 text-[12.5px] leading-[17px]">
      <p className="flex items-center justify-between gap-2 text-soft">
        <span>{say(asked)}</span>
        <button type="button" className="btn !h-7 shrink-0" onClick={() => void remember()}>
          Remember
        </button>
      </p>
      {wrong && (
        <p role="alert" className="mt-1 text-danger">
          {wrong}
        </p>
      )}
    </div>
  );
}
