"use client";
import { cutKind } from "@oaken/core/cuts/register";
import { cutterFromRack, RACK } from "@oaken/core/cutters/rack";
import { describeCutter, sameCutter } from "@oaken/core/cutters/profile";
import type { JobCut } from "@oaken/core/job/document";
import { Pick } from "../ui/pick.tsx";
import { useActions, useBench } from "./context.tsx";

/** The cutter of a cut, and for a carve the one that clears its wide floors. */
export function CutterPick({ cut }: { cut: JobCut }) {
  const { change } = useActions();
  const doc = useBench((s) => s.doc);
  const kinds = cutKind(cut.kind).cutters;
  const known = RACK.filter((c) => kinds.includes(c.kind));
  const inRack = known.find((c) => sameCutter(c, cut.cutter));
  const options = [...(inRack ? [] : [{ value: "own", label: describeCutter(cut.cutter) }]), ...known.map((c) => ({ value: c.id!, label: describeCutter(c) }))];
  const helper = doc.cuts.find((c) => c.target === cut.id);
  const row = "flex shrink-0 min-h-[50px] items-center justify-between gap-2 border-t border-line mx-3";
  return (
    <>
      <div className={row}>
        <span className="font-semibold">Cutter</span>
        <Pick label="Cutter" value={inRack?.id ?? "own"} options={options} onChange={(v) => v !== "own" && change("cutter", (d) => void (d.cuts.find((c) => c.id === cut.id)!.cutter = cutterFromRack(v)))} />
      </div>
      {cut.kind === "vcarve" && (
        <div className={row}>
          <span className="font-semibold">Clear wide floors with</span>
          <Pick
            label="Clear wide floors with"
            value={helper ? (helper.cutter.id ?? "own") : "none"}
            options={[{ value: "none", label: "nothing" }, ...(helper && !helper.cutter.id ? [{ value: "own", label: describeCutter(helper.cutter) }] : []), ...RACK.filter((c) => c.kind === "flat").map((c) => ({ value: c.id!, label: describeCutter(c) }))]}
            onChange={(v) =>
              change("clearing cutter", (d) => {
                const at = d.cuts.findIndex((c) => c.target === cut.id);
                if (v === "none") {
                  if (at >= 0) d.cuts.splice(at, 1);
                } else if (v === "own") return;
                else if (at >= 0) d.cuts[at].cutter = cutterFromRack(v);
                else d.cuts.splice(d.cuts.findIndex((c) => c.id === cut.id), 0, { id: `clear-${cut.id}`, kind: "clear", name: "Clear", on: true, reads: cut.reads, target: cut.id, cutter: cutterFromRack(v), settings: {} });
              })
            }
          />
        </div>
      )}
    </>
  );
}
