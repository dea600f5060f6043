"use client";
import { useEffect, useMemo, useRef, useState } from "react";
import { X } from "lucide-react";
import { profileOf } from "@oaken/core/cutters/profile";
import { lengthOf, restingTip, sectionOf, stretchFor } from "@oaken/core/proof/section";
import { formatLength } from "@oaken/core/units";
import { useBench, useParts, useBenchStore } from "./context.tsx";
import type { SectionAt } from "./store.ts";

/** The strip's height and the room above the stock and below what is shown of it, px. */
const HIGH = 116;
const ABOVE = 22;
const BELOW = 8;
/** So much more than the deepest cut is shown of the stock. */
const MORE = 1.2;
/** Shallower than this nothing is worth stretching, mm. */
const LEAST = 0.2;

const WANTED = "#2f6fb5";
const CUT = "#c8401f";

/** The piece cut open along the line on the stage: the stock, what is wanted, what is cut, and a cutter on it. */
export function Section() {
  const at = useBench((s) => s.section);
  return at && <Strip at={at} />;
}

function Strip({ at }: { at: SectionAt }) {
  const store = useBenchStore();
  const { doc, built, selected, unit } = useParts("doc", "built", "selected", "unit");
  const box = useRef<HTMLDivElement>(null);
  const [wide, setWide] = useState(0);
  useEffect(() => {
    const watch = new ResizeObserver(([e]) => setWide(Math.floor(e.contentRect.width)));
    watch.observe(box.current!);
    return () => watch.disconnect();
  }, []);
  const { line, share } = at;
  const length = lengthOf(line);
  const { thickness } = doc.stock;
  const surface = built?.surface ?? null;
  const wantedSurface = built?.shown.heights?.surface ?? null;
  const cut = useMemo(() => surface && wide > 1 && sectionOf(surface, line, wide), [surface, line, wide]);
  const wanted = useMemo(
    () => wantedSurface && wide > 1 && sectionOf(wantedSurface, line, wide),
    [wantedSurface, line, wide],
  );
  const perMm = wide / length;
  const deepest = Math.max(LEAST, lowestOf(cut), lowestOf(wanted));
  const shown = Math.min(thickness, MORE * deepest);
  const stretch = stretchFor(shown, perMm, HIGH - ABOVE - BELOW);
  const y = (z: number) => ABOVE - Math.max(-thickness, z) * perMm * stretch;
  const n = (v: number) => formatLength(v, unit);
  const place = share === null ? null : Math.round(share * (wide - 1));
  const cutter = (doc.cuts.find((c) => c.id === selected) ?? doc.cuts.findLast((c) => c.on))?.cutter;
  const point = (e: React.PointerEvent) => {
    const r = e.currentTarget.getBoundingClientRect();
    set(Math.max(0, Math.min(1, (e.clientX - r.left) / r.width)));
  };
  const set = (to: number | null) => store.setState({ section: { line, share: to } });
  const read = (of: Float32Array | false | null | undefined) =>
    of && place !== null && !Number.isNaN(of[place]) ? n(of[place]) : "–";
  return (
    <section aria-label="Section" className="shrink-0 border-t border-line bg-film">
      <div className="flex h-7 items-center gap-4 px-3 text-[13px]">
        <h2 className="text-[14px] text-soft">Section</h2>
        <span className="num">
          {n(length)} {unit} long
        </span>
        <span className="text-soft">
          heights × <span className="num">{stretch}</span>
        </span>
        {wanted && <Key colour={WANTED} label="wanted" value={read(wanted)} />}
        <Key colour={CUT} label="cut" value={read(cut)} />
        <span className="num text-soft">{share === null ? "" : `at ${n(share * length)} ${unit}`}</span>
        <button
          className="btn btn-plain ml-auto !h-7 !w-7 !p-0"
          aria-label="Close the section"
          onClick={() => store.setState({ section: null })}
        >
          <X size={15} />
        </button>
      </div>
      <div ref={box} className="mx-3 mb-2">
        <svg
          width={wide}
          height={HIGH}
          role="slider"
          tabIndex={0}
          aria-label="Place in the section"
          aria-valuemin={0}
          aria-valuemax={100}
          aria-valuenow={Math.round(100 * (share ?? 0))}
          aria-valuetext={
            place === null ? "none" : `at ${n(share! * length)} ${unit}: cut ${read(cut)}, wanted ${read(wanted)}`
          }
          className="block touch-none rounded bg-raised ring-1 ring-line"
          onPointerMove={point}
          onPointerLeave={() => set(null)}
          onKeyDown={(e) => {
            const step = { ArrowLeft: -0.01, ArrowRight: 0.01 }[e.key];
            if (step === undefined) return;
            set(Math.max(0, Math.min(1, (share ?? 0.5) + step)));
            e.preventDefault();
            e.stopPropagation();
          }}
        >
          {cut && (
            <>
              <path d={`M0 ${HIGH}${course(cut, y, "L")}L${wide} ${HIGH}Z`} fill="#e6d3ad" />
              <path d={course(cut, y, "M")} fill="none" stroke={CUT} strokeWidth="1.5" />
            </>
          )}
          {wanted && <path d={course(wanted, y, "M")} fill="none" stroke={WANTED} strokeWidth="1.2" />}
          <path d={`M0 ${ABOVE + 0.5}H${wide}`} stroke="#8a948e" strokeDasharray="4 4" />
          <path d={`M0 ${y(-thickness) + 0.5}H${wide}`} stroke="#55605b" />
          {cut && place !== null && cutter && cutter.kind !== "torch" && (
            <CutterOver section={cut} each={1 / perMm} place={place} cutter={cutter} y={y} />
          )}
          {place !== null && <path d={`M${place + 0.5} 0V${HIGH}`} stroke="#1f6b57" opacity="0.5" />}
        </svg>
      </div>
    </section>
  );
}

function Key({ colour, label, value }: { colour: string; label: string; value: string }) {
  return (
    <span className="flex items-center gap-1.5">
      <span className="h-[3px] w-4 rounded" style={{ background: colour }} />
      {label} <span className="num w-14">{value}</span>
    </span>
  );
}

/** The cutter standing on the section, in the section's own proportion. */
function CutterOver(q: {
  section: Float32Array;
  each: number;
  place: number;
  cutter: Parameters<typeof profileOf>[0];
  y(z: number): number;
}) {
  const p = profileOf(q.cutter);
  const tip = restingTip(q.section, q.each, q.place, p);
  const reach = Math.max(1, Math.floor(p.radius / q.each));
  const half = Array.from({ length: reach + 1 }, (_, k) => {
    const r = Math.min(p.radius, (k * p.radius) / reach);
    return { x: r / q.each, y: q.y(tip + Math.min(p.height, p.h(r))) };
  });
  const side = (sign: number, points: typeof half) => points.map((v) => `L${q.place + sign * v.x} ${v.y}`).join("");
  const edge = q.place - half[reach].x;
  const body = side(-1, half.slice().reverse()).slice(1) + side(1, half);
  return <path d={`M${edge} 0L${body}V0Z`} fill="#55605b" opacity="0.45" />;
}

/** A section as a line; where there is no board the line breaks, or goes on level where it is a body's outline. */
function course(z: Float32Array, y: (z: number) => number, start: "M" | "L"): string {
  let isOn = start === "L";
  let path = "";
  z.forEach((v, k) => {
    if (Number.isNaN(v)) {
      if (start === "M") isOn = false;
      else path += `L${k} ${HIGH}`;
      return;
    }
    path += `${isOn ? "L" : "M"}${k} ${y(v).toFixed(1)}`;
    isOn = true;
  });
  return path;
}

/** How deep a section goes, mm. */
const lowestOf = (z: Float32Array | false | null | undefined): number =>
  z ? z.reduce((low, v) => (Number.isNaN(v) ? low : Math.max(low, -v)), 0) : 0;
