"use client";
import { useContext, useEffect } from "react";
import { Pause, Play } from "lucide-react";
import { Pick } from "../../ui/pick.tsx";
import { COMMANDS, hint } from "../commands.ts";
import { BenchContext, useBench, useBenchStore, useParts } from "../context.tsx";
import { cuttingSeconds, seek } from "../playback.ts";

/** Speeds of the playhead against real time. */
const SPEEDS = ["1", "10", "50", "200", "500"];

/** Play, pause and speed; it also runs the playhead. */
export function Player() {
  const store = useBenchStore();
  const { bench, desk } = useContext(BenchContext)!;
  const { playing, speed } = useParts("playing", "speed");
  const isEmpty = useBench((s) => !s.built || cuttingSeconds(s.built.cuts) === 0);
  useEffect(() => {
    if (!playing) return;
    let last = performance.now();
    let frame = requestAnimationFrame(function tick(now) {
      seek(bench, desk, (store.getState().playhead ?? 0) + ((now - last) / 1000) * speed);
      last = now;
      if (store.getState().playing) frame = requestAnimationFrame(tick);
    });
    return () => cancelAnimationFrame(frame);
  }, [playing, speed, bench, desk, store]);
  return (
    <div className="flex flex-col items-center justify-center gap-1">
      <button
        className="grid h-11 w-11 place-items-center rounded-full bg-ink text-film disabled:bg-faint"
        aria-label={playing ? "Pause" : "Play the cutting"}
        title={hint(COMMANDS.play, playing ? "pause" : "play the cutting")}
        disabled={isEmpty}
        onClick={() => COMMANDS.play.run(bench)}
      >
        {playing ? <Pause size={20} /> : <Play size={20} className="ml-0.5" />}
      </button>
      <Pick
        label="Playing speed"
        value={String(speed)}
        options={SPEEDS.map((s) => ({ value: s, label: `${s}×` }))}
        onChange={(v) => store.setState({ speed: Number(v) })}
        className="!h-7 !border-transparent !bg-transparent !px-1 text-[12px]"
      />
    </div>
  );
}
