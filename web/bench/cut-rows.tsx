"use client";
import { type JobCut, STOPS, type StopKind } from "@oaken/core/job/document";
import { cutKind } from "@oaken/core/cuts/register";
import { makingsThatGive } from "@oaken/core/job/graph";
import { formatLength } from "@oaken/core/units";
import { Pick } from "../ui/pick.tsx";
import { useActions, useBench, useParts, useBenchStore } from "./context.tsx";

const row = "mx-3 flex min-h-[50px] shrink-0 items-center justify-between gap-2 border-t border-line";

/** What a cut works on; only where there is more than one, or the one it had is gone. */
export function ShapePick({ cut }: { cut: JobCut }) {
  const doc = useBench((s) => s.doc);
  const { change } = useActions();
  const { gives, label } = cutKind(cut.kind).reads.art;
  const all = makingsThatGive(doc, gives);
  const own = (doc.cuts.find((c) => c.id === cut.target) ?? cut).reads.art;
  if (cut.target || (all.length < 2 && all.some((o) => o.id === own))) return null;
  const known = all.some((o) => o.id === own);
  return (
    <div className={row}>
      <span className="font-semibold">{gives === "shapes" ? "Shape" : label}</span>
      <Pick
        label={gives === "shapes" ? "Shape" : label}
        value={known ? own : "none"}
        options={[
          ...(known ? [] : [{ value: "none", label: "none: choose one" }]),
          ...all.map((o) => ({ value: o.id, label: o.name })),
        ]}
        onChange={(v) =>
          v !== "none" &&
          change("shape", (d) => {
            for (const c of d.cuts.filter((q) => q.id === cut.id || q.target === cut.id)) {
              // Nothing is its own border.
              if (c.reads.border === v) delete c.reads.border;
              c.reads.art = v;
            }
          })
        }
      />
    </div>
  );
}

/** Which outline is the border of a carve that leaves its ink standing. */
export function BorderPick({ cut }: { cut: JobCut }) {
  const doc = useBench((s) => s.doc);
  const { change } = useActions();
  if (cut.settings.border !== "shape" || cut.settings.side !== "stands") return null;
  const others = makingsThatGive(doc, "shapes").filter((n) => n.id !== cut.reads.art);
  const own = others.find((o) => o.id === cut.reads.border);
  return (
    <div className={row}>
      <span className="font-semibold">Border is</span>
      {others.length === 0 ? (
        <span className="text-[13px] text-soft">add another outline first</span>
      ) : (
        <Pick
          label="Border is"
          value={own?.id ?? "none"}
          options={[
            ...(own ? [] : [{ value: "none", label: "choose one" }]),
            ...others.map((o) => ({ value: o.id, label: o.name })),
          ]}
          onChange={(v) =>
            v !== "none" && change("border", (d) => void (d.cuts.find((c) => c.id === cut.id)!.reads.border = v))
          }
        />
      )}
    </div>
  );
}

/** What a person does before this cut. */
export function StopRow({ cut }: { cut: JobCut }) {
  const { change } = useActions();
  const stop = cut.stop!;
  const edit = (patch: Partial<typeof stop>) =>
    change(`stop before ${cut.name}`, (d) => void Object.assign(d.cuts.find((c) => c.id === cut.id)!.stop!, patch));
  return (
    <div className="mx-3 shrink-0 border-t border-line py-2.5">
      <div className="flex min-h-[30px] items-center justify-between gap-2">
        <span className="font-semibold">Stop before it</span>
        <Pick
          label="Stop before it"
          value={stop.what}
          options={(Object.keys(STOPS) as StopKind[]).map((k) => ({ value: k, label: STOPS[k] }))}
          onChange={(v) => edit({ what: v as StopKind })}
        />
      </div>
      <input
        aria-label="What to do at the stop"
        placeholder="what to do, for the setup sheet"
        className="box mt-1.5 w-full !font-sans"
        key={stop.note}
        defaultValue={stop.note}
        maxLength={200}
        onBlur={(e) => e.target.value !== stop.note && edit({ note: e.target.value.trim() })}
        onKeyDown={(e) => e.key === "Enter" && e.currentTarget.blur()}
      />
    </div>
  );
}

/** What the cutter could not do of what it was asked, with the map of it one click away. */
export function LeftStanding({ cut }: { cut: string }) {
  const { built, unit } = useParts("built", "unit");
  const store = useBenchStore();
  const left = built?.cuts.find((c) => c.id === cut)?.left;
  if (!left || left.area <= 0) return null;
  const n = (v: number) => formatLength(v, unit);
  const share = (v: number) => `${((100 * v) / left.area).toFixed(1)} %`;
  const nothing = left.lost / left.area < 0.0005 && left.uncut / left.area < 0.0005;
  return (
    <div
      className={
        "mx-3 flex shrink-0 items-start justify-between gap-2 border-t border-line py-2 text-[13px] leading-[18px]"
      }
    >
      <span>
        {nothing
          ? "Reaches all of the shape."
          : [
              left.lost > 0 && `${share(left.lost)} out of reach, up to ${n(left.lostHeight)} ${unit} high`,
              left.uncut > 0 && `${share(left.uncut)} of floor left, up to ${n(left.uncutHeight)} ${unit} high`,
            ]
              .filter(Boolean)
              .join("; ") + "."}
      </span>
      {!nothing && (
        <button
          className="shrink-0 text-spruce underline"
          onClick={() =>
            store.setState({ colouring: "left", tilt: 0, mixer: { picture: 0, outline: 0, paths: 0, proof: 1 } })
          }
        >
          show
        </button>
      )}
    </div>
  );
}
