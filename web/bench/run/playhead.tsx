"use client";
import { type RefObject, useContext, useEffect, useState } from "react";
import { formatTime } from "@oaken/core/units";
import { BenchContext, useBench, useParts } from "../context.tsx";
import { cuttingSeconds, offsetOf, secondsAt, seek } from "../playback.ts";

/** Arrow keys move the playhead by this share of all cutting; with Shift by the larger. */
const STEP = 1 / 100;
const LONG_STEP = 1 / 20;

/** The proof's scrubber over the cards: a track that is clicked or dragged, and the playhead. */
export function Playhead({ track }: { track: RefObject<HTMLDivElement | null> }) {
  const { bench, desk } = useContext(BenchContext)!;
  const { built, playhead } = useParts("built", "playhead");
  // Cards move when cuts are reordered: the playhead is where its time is in them.
  useBench((s) => s.doc.cuts);
  // They have other widths in another window.
  const [, resized] = useState(0);
  useEffect(() => {
    const watch = new ResizeObserver(() => resized((n) => n + 1));
    watch.observe(track.current!);
    return () => watch.disconnect();
  }, [track]);
  const total = built ? cuttingSeconds(built.cuts) : 0;
  if (!built || total === 0) return null;
  const to = (e: React.PointerEvent) => {
    const x = e.clientX - e.currentTarget.getBoundingClientRect().left;
    seek(bench, desk, secondsAt(track.current!, built.cuts, x));
  };
  return (
    <>
      <div
        className="absolute inset-x-0 top-0 h-2.5 cursor-pointer touch-none"
        onPointerDown={(e) => {
          e.currentTarget.setPointerCapture(e.pointerId);
          bench.store.setState({ playing: false });
          to(e);
        }}
        onPointerMove={(e) => e.buttons && to(e)}
      />
      <div
        role="slider"
        aria-label="Moment of the cutting"
        aria-valuemin={0}
        aria-valuemax={Math.round(total)}
        aria-valuenow={Math.round(playhead ?? total)}
        aria-valuetext={playhead === null ? "finished" : formatTime(playhead)}
        tabIndex={0}
        className="pointer-events-none absolute bottom-0 top-0 w-[2px] bg-pencil"
        style={{ left: Math.max(0, (track.current ? offsetOf(track.current, built.cuts, playhead ?? total) : 0) - 2) }}
        onKeyDown={(e) => {
          const way = { ArrowLeft: -1, ArrowRight: 1 }[e.key];
          if (!way) return;
          seek(bench, desk, (playhead ?? total) + way * total * (e.shiftKey ? LONG_STEP : STEP));
          e.preventDefault();
        }}
      >
        <span
          className={"absolute -left-[5px] top-0 border-x-[6px] border-t-[8px] border-x-transparent border-t-pencil"}
        />
      </div>
    </>
  );
}
