"use client";
import { useEffect, useRef, useState } from "react";
import { Copy, Eye, EyeOff, Pause, Play, Trash2 } from "lucide-react";
import { cutKind } from "@oaken/core/cuts/register";
import { formatLength, formatTime } from "@oaken/core/units";
import { CutterShape } from "../ui/cutter-shape.tsx";
import { Pick } from "../ui/pick.tsx";
import { useActions, useBench, useBenchStore, useDesk } from "./context.tsx";
import { cuttingSeconds, positionAt } from "./playback.ts";

/** Speeds of the playhead against real time. */
const SPEEDS = ["1", "10", "50", "200", "500"];
/** Narrowest card, pixels: its text stays readable. */
const LEAST = 158;

/** The bottom: cuts in machining order, as wide as they take time, and the proof's scrubber. */
export function RunStrip() {
  const { doc, built, selected, working, playhead, unit } = useBench((s) => s);
  const store = useBenchStore();
  const desk = useDesk();
  const { select, change } = useActions();
  const [playing, setPlaying] = useState(false);
  const [speed, setSpeed] = useState("50");
  const track = useRef<HTMLDivElement>(null);
  const total = built ? cuttingSeconds(built.cuts) : 0;

  const goTo = (seconds: number | null) => {
    const b = store.getState().built;
    if (!b) return;
    if (seconds === null || seconds >= cuttingSeconds(b.cuts)) {
      store.setState({ playhead: null, scrubbed: null });
      return;
    }
    const at = positionAt(b.cuts, Math.max(0, seconds));
    store.setState({ playhead: Math.max(0, seconds) });
    if (at) desk.scrub(at.cut, at.move);
  };

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
  }, [playing, speed]);
  useEffect(() => {
    const toggle = () => setPlaying((p) => !p);
    window.addEventListener("oaken-play", toggle);
    return () => window.removeEventListener("oaken-play", toggle);
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
      if (x < el.offsetLeft + el.offsetWidth) return sum + Math.max(0, (x - el.offsetLeft) / el.offsetWidth) * r.seconds;
      sum += r.seconds;
    }
    return sum;
  };
  const cutters = new Set(doc.cuts.filter((c) => c.on).map((c) => JSON.stringify(c.cutter))).size;

  return (
    <section aria-label="Run strip" className="flex h-[100px] shrink-0 items-stretch gap-3 border-t border-line bg-film px-3">
      <div className="flex flex-col items-center justify-center gap-1">
        <button className="grid h-11 w-11 place-items-center rounded-full bg-ink text-film disabled:bg-faint" aria-label={playing ? "Pause" : "Play the cutting"} title={playing ? "Pause (space)" : "Play the cutting (space)"} disabled={!built || total === 0} onClick={() => (playing ? setPlaying(false) : (goTo(playhead ?? 0), setPlaying(true)))}>
          {playing ? <Pause size={20} /> : <Play size={20} className="ml-0.5" />}
        </button>
        <Pick label="Playing speed" value={speed} options={SPEEDS.map((s) => ({ value: s, label: `${s}×` }))} onChange={setSpeed} className="!h-7 !border-transparent !bg-transparent !px-1 text-[12px]" />
      </div>
      <div className="relative min-w-0 flex-1 overflow-x-auto overflow-y-hidden">
        <div ref={track} className="relative flex h-full items-center gap-1.5 pt-2.5">
          {doc.cuts.map((c, i) => {
            const r = results.get(c.id);
            const step = working?.step === c.id || (working?.step === "proof" && r);
            return (
              <div key={c.id} data-cut={c.id} className={`card relative flex h-[74px] items-center ${selected === c.id ? "!border-spruce ring-1 ring-spruce" : ""} ${c.on ? "" : "opacity-60"}`} style={{ flexGrow: c.on && r ? Math.max(1, r.seconds) : 1, flexBasis: LEAST, minWidth: LEAST }}>
                <button className="flex h-full min-w-0 flex-1 items-center gap-2.5 rounded-md pl-2.5 text-left" aria-current={selected === c.id} onClick={() => select(c.id)}>
                  <CutterShape cutter={c.cutter} />
                  <span className="min-w-0">
                    <span className="block truncate font-semibold">
                      {i + 1} · {c.name}
                    </span>
                    <span className="block truncate text-[12.5px] leading-4 text-soft">{r ? cutKind(c.kind).summary(Object.fromEntries(Object.entries(r.resolved).map(([k, v]) => [k, v.value])), c.cutter) : "…"}</span>
                    <span className="num block leading-5">{c.on ? (r ? (r.toolpath.kind.length > 0 ? formatTime(r.seconds) : "nothing to cut") : "") : "switched off"}</span>
                  </span>
                </button>
                <div className="flex flex-col self-stretch py-0.5 pr-0.5 text-faint">
                  <button className="grid h-[24px] min-h-[24px] w-7 place-items-center rounded hover:bg-sunk" aria-label={`${c.on ? "Switch off" : "Switch on"} ${c.name}`} title={c.on ? "Switch off" : "Switch on"} onClick={() => change(c.on ? `switch off ${c.name}` : `switch on ${c.name}`, (d) => void (d.cuts[i].on = !c.on))}>
                    {c.on ? <Eye size={14} /> : <EyeOff size={14} />}
                  </button>
                  <button
                    className="grid h-[24px] w-7 place-items-center rounded hover:bg-sunk"
                    aria-label={`Duplicate ${c.name}`}
                    title="Duplicate"
                    onClick={() =>
                      change(`duplicate ${c.name}`, (d) => {
                        let id = `${c.id}-2`;
                        for (let k = 3; d.cuts.some((q) => q.id === id); k++) id = `${c.id}-${k}`;
                        d.cuts.splice(i + 1, 0, { ...structuredClone(d.cuts[i]), id, name: `${c.name} again` });
                      })
                    }
                  >
                    <Copy size={13} />
                  </button>
                  <button
                    className="grid h-[24px] w-7 place-items-center rounded hover:bg-sunk"
                    aria-label={`Remove ${c.name}`}
                    title="Remove"
                    onClick={() => {
                      change(`remove ${c.name}`, (d) => void (d.cuts = d.cuts.filter((q) => q.id !== c.id && q.target !== c.id)));
                      select("stock");
                    }}
                  >
                    <Trash2 size={13} />
                  </button>
                </div>
                {step && <span className="catching-up absolute inset-x-1 bottom-0 h-[2px]" />}
              </div>
            );
          })}
          {doc.cuts.length === 0 && <p className="text-soft">No cuts. Undo, or start again from the picture.</p>}
          {built && total > 0 && (
            <>
              <div
                className="absolute inset-x-0 top-0 h-2.5 cursor-pointer"
                onPointerDown={(e) => {
                  e.currentTarget.setPointerCapture(e.pointerId);
                  setPlaying(false);
                  goTo(secondsAt(e.clientX - e.currentTarget.getBoundingClientRect().left));
                }}
                onPointerMove={(e) => e.buttons && goTo(secondsAt(e.clientX - e.currentTarget.getBoundingClientRect().left))}
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
                <span className="absolute -left-[5px] top-0 border-x-[6px] border-t-[8px] border-x-transparent border-t-pencil" />
              </div>
            </>
          )}
        </div>
      </div>
      <div className="flex w-[128px] flex-col justify-center text-right">
        <span className="font-head text-[20px] leading-6">{built ? formatTime(playhead ?? built.seconds) : "…"}</span>
        <span className="text-[12.5px] text-soft">{!built ? "working it out" : playhead !== null ? `of ${formatTime(total)} cutting` : `machining, ${cutters} ${cutters === 1 ? "cutter" : "cutters"}`}</span>
        {built && playhead === null && <span className="text-[12.5px] text-soft">deepest {formatLength(Math.max(0, ...built.cuts.filter((c) => c.on).map((c) => -c.minZ)), unit)} {unit}</span>}
      </div>
    </section>
  );
}
