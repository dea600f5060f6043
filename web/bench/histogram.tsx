"use client";
import { lazy, Suspense, useMemo } from "react";
import { aboutOf } from "@oaken/core/job/graph";
import { useBench } from "./context.tsx";

/** Heights of 64 bars for 256 greys, 0 to 1: square roots, so that a plain ground does not flatten everything else. */
export function barsOf(bins: Uint32Array): number[] {
  const bars = Array.from({ length: 64 }, (_, i) =>
    Math.sqrt(bins[4 * i] + bins[4 * i + 1] + bins[4 * i + 2] + bins[4 * i + 3]),
  );
  const most = Math.max(...bars, 1);
  return bars.map((b) => b / most);
}

/** Charts are loaded with the first one that is looked at. */
const GreysChart = lazy(() => import("./greys-chart.tsx"));

/** The picture's greys with the ink level on them. */
export function Histogram() {
  const built = useBench((s) => s.built);
  const outline = useBench((s) => aboutOf(s.doc, s.selected, "shapes")?.id);
  const own = useBench((s) => s.doc.makings.find((n) => n.id === outline)?.settings.ink);
  const bins = built?.shown.grey?.bins;
  const bars = useMemo(() => bins && barsOf(bins), [bins]);
  if (!built || !bars) return null;
  // Without an outline there is no ink.
  const level = outline === undefined ? 0 : Number(own ?? built.resolved[outline]?.ink?.value ?? 0.5);
  return (
    <figure className="px-3 pb-2">
      <div
        className="h-12 overflow-hidden rounded bg-raised ring-1 ring-line"
        role="img"
        aria-label={
          `Greys of the picture from black to white` + (outline ? `; ink below ${Math.round(level * 100)} %` : "")
        }
      >
        <Suspense fallback={null}>
          <GreysChart bars={bars} level={outline === undefined ? null : level} />
        </Suspense>
      </div>
      <figcaption className="flex justify-between text-[12px] text-soft">
        <span>black</span>
        {outline && <span>ink is left of the line</span>}
        <span>white</span>
      </figcaption>
    </figure>
  );
}
