"use client";
import { Check } from "lucide-react";
import { useState } from "react";
import { type Cutter, describeCutters } from "@oaken/core/cutters/profile";
import { type Choosable, choosable } from "@oaken/core/cuts/register";
import type { Choice } from "@oaken/core/job/choose";
import type { BoardJob, JobCut } from "@oaken/core/job/document";
import { isMore, leavesMore } from "@oaken/core/job/leaves";
import { formatTime } from "@oaken/core/units";
import { useShop } from "../ui/shop.tsx";
import { areSame, cuttersOf, takeChosen } from "./chosen.ts";
import { useActions, useBench, useDesk } from "./context.tsx";

/** Sets that are shown: the slower ones are no help. */
const SHOWN = 6;

/** What a choice hangs on: the job but for the cutters that are chosen. */
const keyOf = (doc: BoardJob, cut: JobCut, { own, help }: Choosable): string =>
  JSON.stringify([
    doc.makings,
    doc.stock,
    doc.machine,
    doc.cuts
      .filter((c) => c.target !== cut.id || c.kind !== help?.kind)
      .map((c) => (own && c.id === cut.id ? { ...c, cutter: null } : c)),
  ]);

/** Cutters of the rack tried against each other for a cut: each set a row with its time, one click away. */
export function CutterSets({ cut }: { cut: JobCut }) {
  const way = choosable(cut.kind);
  return way && <Sets cut={cut} way={way} />;
}

function Sets({ cut, way }: { cut: JobCut; way: Choosable }) {
  const { change } = useActions();
  const desk = useDesk();
  const doc = useBench((s) => s.doc);
  const { cutters: rack } = useShop();
  const [found, setFound] = useState<{ key: string; choice: Choice | null } | null>(null);
  const [working, setWorking] = useState(false);
  const [wrong, setWrong] = useState<string | null>(null);
  const key = keyOf(doc, cut, way);
  const mine = cuttersOf(doc, cut.id, way);
  const tried = found?.key === key ? (found.choice?.tried ?? []) : null;
  const look = async () => {
    setWorking(true);
    setWrong(null);
    try {
      setFound({ key, choice: await desk.choose(doc, cut.id, rack) });
    } catch (e) {
      setWrong((e as Error).message);
    }
    setWorking(false);
  };
  // However quickly one set is clicked after another: each is a step of undo.
  const take = (cutters: Cutter[]) =>
    change("cutters", (d) => takeChosen(d, cut.id, way, cutters), `cutters ${++takes}`);
  return (
    <div className="mx-3 shrink-0 border-t border-line py-2">
      {!tried && (
        <button type="button" className="btn !h-8" onClick={() => void look()} disabled={working}>
          {working ? "Trying the rack …" : "Which are quickest?"}
        </button>
      )}
      {wrong && <p className="mt-1 text-danger">{wrong}</p>}
      {tried?.length === 0 && <p className="text-soft">There is nothing to cut yet that cutters could be tried on.</p>}
      {tried && tried.length > 0 && (
        <ul aria-label="Cutters by time" className="flex flex-col gap-px">
          {tried.slice(0, SHOWN).map((t) => {
            const isNow = areSame(t.cutters, mine);
            const name = t.cutters.length === 0 ? "none" : describeCutters(t.cutters);
            return (
              <li key={name}>
                <button
                  type="button"
                  aria-pressed={isNow}
                  onClick={() => take(t.cutters)}
                  className="flex min-h-[28px] w-full items-center justify-between gap-2 rounded px-2 text-left
                    hover:bg-sunk aria-pressed:bg-sunk aria-pressed:font-semibold"
                >
                  <span className="flex items-center gap-1">
                    {isNow && <Check size={14} aria-hidden className="text-spruce" />}
                    {name}
                  </span>
                  <span className="shrink-0 text-right text-soft">
                    <span className="font-mono">
                      {t.isPlanned ? "" : "about "}
                      {formatTime(t.seconds)}
                    </span>
                    {isMore(t.left, tried[0].left) && (
                      <span className="block text-[12px] leading-[15px]">
                        leaves {leavesMore(t.left, tried[0].left)}
                      </span>
                    )}
                  </span>
                </button>
              </li>
            );
          })}
        </ul>
      )}
    </div>
  );
}

/** Counts the sets that were taken. */
let takes = 0;
