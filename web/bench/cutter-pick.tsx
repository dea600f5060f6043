"use client";
import { Fragment } from "react";
import { cutKind, CUTS } from "@oaken/core/cuts/register";
import { cutterIn } from "@oaken/core/cutters/rack";
import { angleFrom, type Cutter, describeCutter, shoulderOf } from "@oaken/core/cutters/profile";
import type { BoardJob, JobCut } from "@oaken/core/job/document";
import { isOwned } from "@oaken/core/shop/shop";
import { addHelper, removeCut } from "@oaken/core/job/edit";
import { LengthField } from "../ui/length-field.tsx";
import { Pick } from "../ui/pick.tsx";
import { Slide } from "../ui/slide.tsx";
import { useShop } from "../ui/shop.tsx";
import { useActions, useBench, useSpoken } from "./context.tsx";
import { CutterSets } from "./cutter-sets.tsx";

/** The cutter of a cut, and those that work for it. */
export function CutterPick({ cut }: { cut: JobCut }) {
  const { change } = useActions();
  const rack = useShop().cutters;
  const kinds = cutKind(cut.kind).cutters;
  const known = rack.filter((c) => kinds.includes(c.kind) && (isOwned(c) || c.id === cut.cutter.id));
  const inRack = known.find((c) => c.id === cut.cutter.id);
  const options = [
    ...(inRack ? [] : [{ value: "own", label: describeCutter(cut.cutter) }]),
    ...known.map((c) => ({ value: c.id!, label: describeCutter(c) })),
  ];
  const row = "flex shrink-0 min-h-[50px] items-center justify-between gap-2 border-t border-line mx-3";
  return (
    <>
      <div className={row}>
        <span className="font-semibold">Cutter</span>
        <Pick
          label="Cutter"
          value={inRack?.id ?? "own"}
          options={options}
          onChange={(v) =>
            v !== "own" &&
            change("cutter", (d) => void (d.cuts.find((c) => c.id === cut.id)!.cutter = cutterIn(rack, v)))
          }
        />
      </div>
      {inRack && !sameFigures(inRack, cut.cutter) && <ChangedInRack cut={cut} now={inRack} />}
      {cut.cutter.kind === "v" && <Angle cut={cut} />}
      {cut.cutter.kind === "torch" && <Kerf cut={cut} />}
      {CUTS.map(({ kind, helps }) =>
        helps?.kind === cut.kind ? <Helpers key={kind} cut={cut} kind={kind} label={helps.label} /> : null,
      )}
      <CutterSets cut={cut} />
    </>
  );
}

/** What a cut is planned by: notes and numbers owned change nothing. */
const sameFigures = (a: Cutter, b: Cutter): boolean => {
  const figures = ({ name: _n, note: _w, owned: _o, ...rest }: Cutter) => JSON.stringify(Object.entries(rest).sort());
  return figures(a) === figures(b);
};

/** The job holds a copy of its cutter; where the rack's has changed since, it says so and offers the new one. */
function ChangedInRack({ cut, now }: { cut: JobCut; now: Cutter }) {
  const { change } = useActions();
  const take = () =>
    change("the rack's cutter", (d) => void (d.cuts.find((c) => c.id === cut.id)!.cutter = { ...now }));
  return (
    <p className="mx-3 flex shrink-0 items-center justify-between gap-2 pb-2 text-[12.5px] leading-[17px] text-soft">
      <span>The rack's {now.name ?? describeCutter(now)} has changed since; this job keeps its own.</span>
      <button className="btn !h-7" onClick={take}>
        Take the rack's
      </button>
    </p>
  );
}

/** The cutters that work for this cut, one after the other, each taking what the last one left. */
function Helpers({ cut, kind, label }: { cut: JobCut; kind: string; label: string }) {
  const { change } = useActions();
  const doc = useBench((s) => s.doc);
  const rack = useShop().cutters;
  const mine = doc.cuts.filter((c) => c.target === cut.id && c.kind === kind);
  const flats = rack
    .filter((c) => cutKind(kind).cutters.includes(c.kind) && isOwned(c))
    .map((c) => ({
      value: c.id!,
      label: describeCutter(c),
    }));
  const row = (name: string, value: string, options: { value: string; label: string }[], set: (v: string) => void) => (
    <div className="mx-3 flex min-h-[50px] shrink-0 items-center justify-between gap-2 border-t border-line">
      <span className="font-semibold">{name}</span>
      <Pick label={name} value={value} options={options} onChange={set} />
    </div>
  );
  return (
    <>
      {mine.map((h, i) => (
        <Fragment key={h.id}>
          {row(
            i === 0 ? label : "and then with",
            rack.some((c) => c.id === h.cutter.id) ? h.cutter.id! : "own",
            [
              { value: "none", label: "nothing" },
              ...(h.cutter.id ? [] : [{ value: "own", label: describeCutter(h.cutter) }]),
              ...flats,
            ],
            (v) =>
              v !== "own" &&
              change(`${kind} cutter`, (d) =>
                v === "none"
                  ? removeCut(d, h.id)
                  : void (d.cuts.find((c) => c.id === h.id)!.cutter = cutterIn(rack, v)),
              ),
          )}
        </Fragment>
      ))}
      {row(
        mine.length === 0 ? label : "and then with",
        "none",
        [{ value: "none", label: "nothing" }, ...flats],
        (v) =>
          v !== "none" &&
          change(
            `${kind} cutter`,
            (d) =>
              void addHelper(
                d,
                d.cuts.find((c) => c.id === cut.id)!,
                kind,
                cutterIn(rack, v),
              ),
          ),
      )}
    </>
  );
}

/** How wide the torch cuts: measured on a test cut, it sets the size of everything. */
function Kerf({ cut }: { cut: JobCut }) {
  const { change } = useActions();
  const say = useSpoken();
  const unit = useBench((s) => s.unit);
  const set = (v: number) =>
    change("kerf", (d) => {
      const c = d.cuts.find((q) => q.id === cut.id)!;
      const { id: _id, name: _name, ...own } = c.cutter;
      c.cutter = { ...own, diameter: v };
    });
  return (
    <div className="mx-3 shrink-0 border-t border-line py-2.5">
      <div className="flex min-h-[30px] items-center justify-between gap-2">
        <span className="font-semibold">Kerf</span>
        <LengthField label="Kerf" value={cut.cutter.diameter} unit={unit} min={0.05} max={10} onChange={set} />
      </div>
      <p className="text-[12.5px] leading-[17px] text-soft">
        {say(`the path runs ${(cut.cutter.diameter / 2).toFixed(2)} mm into the waste.`)}
      </p>
    </div>
  );
}

/** Included angles that V cutters are ground to, degrees. */
const LEAST_ANGLE = 10;
/** An angle that was measured is rounded to this, degrees. */
const MEASURED = 0.1;
const MOST_ANGLE = 150;

/** A V cutter's included angle: moving it shows at once what a blunter or sharper one would do. */
function Angle({ cut }: { cut: JobCut }) {
  const { change } = useActions();
  const angle = cut.cutter.angle ?? 60;
  const unit = useBench((q) => q.unit);
  /** @param to what it is rounded, degrees */
  const set = (v: number, to = 1, way?: string) => {
    // A field that was only passed through leaves the rack's cutter as it is.
    if (!Number.isFinite(v) || v === angle) return;
    const a = Math.max(LEAST_ANGLE, Math.min(MOST_ANGLE, Math.round(v / to) * to));
    const edit = (d: BoardJob) => {
      const c = d.cuts.find((q) => q.id === cut.id)!;
      const { id: _id, name: _name, ...own } = c.cutter;
      // The flutes reach as far up as the cone does.
      c.cutter = {
        ...own,
        angle: a,
        fluteLength: Math.round(shoulderOf({ ...own, angle: a }) * 100) / 100,
      };
    };
    change("cutter angle", edit, way);
  };
  return (
    <div className="mx-3 shrink-0 border-t border-line py-2.5">
      <div className="flex min-h-[30px] items-center justify-between gap-2">
        <label htmlFor="cutter-angle" className="font-semibold">
          Angle
        </label>
        <span className="box inline-flex w-[104px] items-center gap-1">
          <input
            id="cutter-angle"
            type="number"
            min={LEAST_ANGLE}
            max={MOST_ANGLE}
            className="w-full min-w-0 bg-transparent text-right outline-none [appearance:textfield]"
            key={angle}
            defaultValue={angle}
            onBlur={(e) => set(e.target.valueAsNumber)}
            onKeyDown={(e) => e.key === "Enter" && e.currentTarget.blur()}
          />
          <span className="shrink-0 text-faint">°</span>
        </span>
      </div>
      <Slide
        look="paper"
        label="Angle slider"
        min={LEAST_ANGLE}
        max={MOST_ANGLE}
        step={1}
        value={angle}
        onChange={(v, way) => set(v, 1, `angle ${way}`)}
      />
      <div className="flex min-h-[30px] items-center justify-between gap-2">
        <label htmlFor="cutter-shoulder" className="font-semibold">
          Tip to shoulder
        </label>
        <LengthField
          id="cutter-shoulder"
          label="Tip to shoulder"
          value={Math.round(100 * shoulderOf(cut.cutter)) / 100}
          unit={unit}
          min={0.1}
          max={300}
          onChange={(v) => set(angleFrom(cut.cutter, v), MEASURED)}
        />
      </div>
      <p className="text-[12.5px] leading-[17px] text-soft">
        As a rule shows it on the cutter; the angle follows. It goes{" "}
        {(0.5 / Math.tan((angle * Math.PI) / 360)).toFixed(2)} times as deep as its stroke is wide.
      </p>
    </div>
  );
}
