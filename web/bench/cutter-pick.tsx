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
      {cut.cutter.kind === "v" && <Angle cut={cut} />}
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

/** Included angles that V cutters are ground to, degrees. */
const LEAST_ANGLE = 10;
const MOST_ANGLE = 150;

/** A V cutter's included angle: moving it shows at once what a blunter or sharper one would do. */
function Angle({ cut }: { cut: JobCut }) {
  const { change } = useActions();
  const angle = cut.cutter.angle ?? 60;
  const set = (v: number) => {
    if (!Number.isFinite(v)) return;
    const a = Math.max(LEAST_ANGLE, Math.min(MOST_ANGLE, Math.round(v)));
    change("cutter angle", (d) => {
      const c = d.cuts.find((q) => q.id === cut.id)!;
      const { id: _id, name: _name, ...own } = c.cutter;
      // The flutes reach as far up as the cone does.
      c.cutter = { ...own, angle: a, fluteLength: Math.round(((own.diameter - (own.tip ?? 0)) / 2 / Math.tan((a * Math.PI) / 360)) * 100) / 100 };
    });
  };
  return (
    <div className="mx-3 shrink-0 border-t border-line py-2.5">
      <div className="flex min-h-[30px] items-center justify-between gap-2">
        <label htmlFor="cutter-angle" className="font-semibold">
          Angle
        </label>
        <span className="box inline-flex w-[104px] items-center gap-1">
          <input id="cutter-angle" type="number" min={LEAST_ANGLE} max={MOST_ANGLE} className="w-full min-w-0 bg-transparent text-right outline-none [appearance:textfield]" key={angle} defaultValue={angle} onBlur={(e) => set(e.target.valueAsNumber)} onKeyDown={(e) => e.key === "Enter" && e.currentTarget.blur()} />
          <span className="shrink-0 text-faint">°</span>
        </span>
      </div>
      <input type="range" aria-label="Angle slider" min={LEAST_ANGLE} max={MOST_ANGLE} value={angle} onChange={(e) => set(e.target.valueAsNumber)} className="my-1 h-6 w-full accent-spruce" />
      <p className="text-[12.5px] leading-[17px] text-soft">goes {(0.5 / Math.tan((angle * Math.PI) / 360)).toFixed(2)} mm deep for each mm of stroke.</p>
    </div>
  );
}
