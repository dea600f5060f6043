"use client";
import { useCallback, Fragment, useEffect, useRef, useState } from "react";
import {
  closestCenter,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
} from "@dnd-kit/core";
import { horizontalListSortingStrategy, SortableContext, sortableKeyboardCoordinates } from "@dnd-kit/sortable";
import { Pause, Play } from "lucide-react";
import { moveCut } from "@oaken/core/job/edit";
import { formatLength, formatTime } from "@oaken/core/units";
import { Pick } from "../ui/pick.tsx";
import { useActions, useBench, useBenchStore, useDesk } from "./context.tsx";
import { cuttingSeconds, positionAt } from "./playback.ts";
import { AddCut } from "./run/add-cut.tsx";
import { CutCard } from "./run/card.tsx";
import { StopCard } from "./run/stop-card.tsx";

/** Speeds of the playhead against real time. */
const SPEEDS = ["1", "10", "50", "200", "500"];
/** A press becomes a drag after so many pixels: less is a click. */
const DRAG_FROM = 6;

/** The bottom: cuts in machining order, as wide as they take time, and the proof's scrubber. */
export function RunStrip() {
  const { doc, built, working, playhead, unit } = useBench((s) => s);
  const store = useBenchStore();
  const desk = useDesk();
  const { change } = useActions();
  const [playing, setPlaying] = useState(false);
  const [speed, setSpeed] = useState("50");
  const track = useRef<HTMLDivElement>(null);
  const total = built ? cuttingSeconds(built.cuts) : 0;

  const goTo = useCallback(
    (seconds: number | null) => {
      const b = store.getState().built;
      if (!b) return;
      if (seconds === null || seconds >= cuttingSeconds(b.cuts)) {
        store.setState({ playhead: null, scrubbed: null });
        return;
      }
      const at = positionAt(b.cuts, Math.max(0, seconds));
      store.setState({ playhead: Math.max(0, seconds) });
      if (at) desk.scrub(at.cut, at.move);
    },
    [store, desk],
  );

  useEffect(() => {
    if (!playing) return;
    let last = performance.now();
    let frame = requestAnimationFrame(function tick(now) {
      const next = (store.getState().playhead ?? 0) + ((now - last) / 1000) * Number(speed);
      last = now;
      if (next >= cuttingSeconds(store.getState().built?.cuts ?? [])) {
        goTo(null);
        setPlaying(false);
        return;
      }
      goTo(next);
      frame = requestAnimationFrame(tick);
    });
    return () => cancelAnimationFrame(frame);
  }, [playing, speed, goTo, store]);
  useEffect(() => {
    const toggle = () => setPlaying((p) => !p);
    window.addEventListener("oaken-play", toggle);
    return () => window.removeEventListener("oaken-play", toggle);
  }, []);

  // The cards have other widths in another window: the playhead is where its time is in them.
  const [, resized] = useState(0);
  useEffect(() => {
    const watch = new ResizeObserver(() => resized((n) => n + 1));
    watch.observe(track.current!);
    return () => watch.disconnect();
  }, []);

  const results = new Map(built?.cuts.map((c) => [c.id, c]));
  /** Where the playhead stands over the cards: card by card, so that narrow cuts keep their share. */
  const position = (seconds: number): number => {
    let left = seconds;
    for (const c of doc.cuts) {
      const r = results.get(c.id);
      const el = track.current?.querySelector<HTMLElement>(`[data-cut="${c.id}"]`);
      if (!r || !c.on || !el) continue;
      if (left <= r.seconds) return el.offsetLeft + (r.seconds > 0 ? left / r.seconds : 1) * el.offsetWidth;
      left -= r.seconds;
    }
    return track.current?.scrollWidth ?? 0;
  };
  const secondsAt = (x: number): number => {
    let sum = 0;
    for (const c of doc.cuts) {
      const r = results.get(c.id);
      const el = track.current?.querySelector<HTMLElement>(`[data-cut="${c.id}"]`);
      if (!r || !c.on || !el) continue;
      if (x < el.offsetLeft + el.offsetWidth)
        return sum + Math.max(0, (x - el.offsetLeft) / el.offsetWidth) * r.seconds;
      sum += r.seconds;
    }
    return sum;
  };
  /** Cutting time of everything before the n-th cut. */
  const secondsBefore = (n: number): number =>
    doc.cuts.slice(0, n).reduce((sum, c) => sum + (c.on ? (results.get(c.id)?.seconds ?? 0) : 0), 0);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: DRAG_FROM } }),
    useSensor(KeyboardSensor, {
      coordinateGetter: sortableKeyboardCoordinates,
      keyboardCodes: { start: ["KeyM"], cancel: ["Escape"], end: ["KeyM", "Enter"] },
    }),
  );
  const moved = ({ active, over }: DragEndEvent) => {
    const to = doc.cuts.findIndex((c) => c.id === over?.id);
    if (over && active.id !== over.id) change("machining order", (d) => moveCut(d, active.id as string, to));
  };
  const pierces = built?.cuts.reduce((sum, c) => sum + (c.on ? (c.facts.pierces ?? 0) : 0), 0) ?? 0;
  const cutters = new Set(doc.cuts.filter((c) => c.on).map((c) => JSON.stringify(c.cutter))).size;

  return (
    <section
      aria-label="Run strip"
      className="flex h-[100px] shrink-0 items-stretch gap-3 border-t border-line bg-film px-3"
    >
      <div className="flex flex-col items-center justify-center gap-1">
        <button
          className="grid h-11 w-11 place-items-center rounded-full bg-ink text-film disabled:bg-faint"
          aria-label={playing ? "Pause" : "Play the cutting"}
          title={playing ? "Pause (space)" : "Play the cutting (space)"}
          disabled={!built || total === 0}
          onClick={() => (playing ? setPlaying(false) : (goTo(playhead ?? 0), setPlaying(true)))}
        >
          {playing ? <Pause size={20} /> : <Play size={20} className="ml-0.5" />}
        </button>
        <Pick
          label="Playing speed"
          value={speed}
          options={SPEEDS.map((s) => ({ value: s, label: `${s}×` }))}
          onChange={setSpeed}
          className="!h-7 !border-transparent !bg-transparent !px-1 text-[12px]"
        />
      </div>
      <div className="relative min-w-0 flex-1 overflow-x-auto overflow-y-hidden">
        <div ref={track} className="relative flex h-full items-center gap-1.5 pt-2.5">
          <DndContext id="run" sensors={sensors} collisionDetection={closestCenter} onDragEnd={moved}>
            <SortableContext items={doc.cuts.map((c) => c.id)} strategy={horizontalListSortingStrategy}>
              {doc.cuts.map((c, i) => {
                const r = results.get(c.id);
                const step = working?.step === c.id || (working?.step === "proof" && !!r);
                return (
                  <Fragment key={c.id}>
                    {c.stop && <StopCard cut={c} />}
                    <CutCard cut={c} index={i} result={r} working={step} seeAfter={() => goTo(secondsBefore(i + 1))} />
                  </Fragment>
                );
              })}
            </SortableContext>
          </DndContext>
          <AddCut />
          {doc.cuts.length === 0 && <p className="text-soft">No cuts yet: add one here.</p>}
          {built && total > 0 && (
            <>
              <div
                className="absolute inset-x-0 top-0 h-2.5 cursor-pointer"
                onPointerDown={(e) => {
                  e.currentTarget.setPointerCapture(e.pointerId);
                  setPlaying(false);
                  goTo(secondsAt(e.clientX - e.currentTarget.getBoundingClientRect().left));
                }}
                onPointerMove={(e) =>
                  e.buttons && goTo(secondsAt(e.clientX - e.currentTarget.getBoundingClientRect().left))
                }
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
                style={{ left: Math.max(0, position(playhead ?? total) - 2) }}
                onKeyDown={(e) => {
                  const k = e.key === "ArrowLeft" ? -1 : e.key === "ArrowRight" ? 1 : 0;
                  if (k) goTo((playhead ?? total) + (k * total) / (e.shiftKey ? 20 : 100));
                }}
              >
                <span
                  className={
                    "absolute -left-[5px] top-0 border-x-[6px] border-t-[8px] border-x-transparent border-t-pencil"
                  }
                />
              </div>
            </>
          )}
        </div>
      </div>
      <div className="relative flex w-[128px] flex-col justify-center text-right">
        <span className="font-head text-[20px] leading-6">{built ? formatTime(playhead ?? built.seconds) : "…"}</span>
        <span className="text-[12.5px] text-soft">
          {!built
            ? "working it out"
            : playhead !== null
              ? `of ${formatTime(total)} cutting`
              : `machining, ${cutters} ${cutters === 1 ? "cutter" : "cutters"}`}
        </span>
        {built && playhead === null && (
          <span className="text-[12.5px] text-soft">
            {pierces > 0
              ? `${pierces} pierces`
              : "deepest " +
                `${formatLength(Math.max(0, ...built.cuts.filter((c) => c.on).map((c) => -c.minZ)), unit)} ` +
                `${unit}`}
          </span>
        )}
        {working && <span aria-hidden="true" className="catching-up absolute inset-x-0 bottom-0 h-[2px]" />}
      </div>
    </section>
  );
}
