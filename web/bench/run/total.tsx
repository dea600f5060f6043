"use client";
import { formatLength, formatTime } from "@oaken/core/units";
import { useBench, useParts } from "../context.tsx";
import { cuttingSeconds } from "../playback.ts";
import { WorkingLine } from "../working-line.tsx";

/** How long all of it takes, or the moment at which the playhead stands. */
export function Total() {
  const { built, playhead } = useParts("built", "playhead");
  return (
    <div className="relative flex w-[128px] flex-col justify-center text-right">
      <span className="font-head text-[20px] leading-6">{built ? formatTime(playhead ?? built.seconds) : "…"}</span>
      {!built && <span className="text-[12.5px] text-soft">working it out</span>}
      {built && playhead !== null && (
        <span className="text-[12.5px] text-soft">{`of ${formatTime(cuttingSeconds(built.cuts))} cutting`}</span>
      )}
      {built && playhead === null && <Figures />}
      <WorkingLine on={() => true} className="inset-x-0" />
    </div>
  );
}

/** What the whole run is, under its time. */
function Figures() {
  const unit = useBench((s) => s.unit);
  const cuts = useBench((s) => s.doc.cuts);
  const built = useBench((s) => s.built!);
  const cutters = new Set(cuts.filter((c) => c.on).map((c) => JSON.stringify(c.cutter))).size;
  const on = built.cuts.filter((c) => c.on);
  const pierces = on.reduce((sum, c) => sum + (c.facts.pierces ?? 0), 0);
  const deepest = formatLength(Math.max(0, ...on.map((c) => -c.minZ)), unit);
  return (
    <>
      <span className="text-[12.5px] text-soft">{`machining, ${cutters} ${cutters === 1 ? "cutter" : "cutters"}`}</span>
      <span className="text-[12.5px] text-soft">
        {pierces > 0 ? `${pierces} pierces` : `deepest ${deepest} ${unit}`}
      </span>
    </>
  );
}
