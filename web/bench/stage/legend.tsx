import { formatLength, type Unit } from "@oaken/core/units";
import type { Built, DrawnCut } from "../../compute/messages.ts";

/** What the depth colours stand for, in the unit at hand. */
export function Legend({ cuts, unit, rapids }: { cuts: readonly DrawnCut[]; unit: Unit; rapids: boolean }) {
  let deepest = 0;
  for (const c of cuts) if (c.on) deepest = Math.max(deepest, -c.minZ);
  return (
    <div className="plate num absolute right-3 top-3 w-44 px-3 py-2">
      <div>depth, {unit}</div>
      <div className="my-1 h-2 rounded" style={{ background: "linear-gradient(90deg,#F8E7B0,#F0A848,#CF4F4B,#5B2A5E)" }} />
      <div className="flex justify-between">
        <span>0</span>
        <span>{formatLength(deepest / 2, unit, unit === "mm" ? 1 : 2)}</span>
        <span>{formatLength(deepest, unit, unit === "mm" ? 1 : 2)}</span>
      </div>
      {rapids && (
        <div className="mt-1 flex items-center gap-2 font-sans text-[13px]">
          <i className="w-5 border-t border-dashed border-[#d8e6dc]" /> rapids
        </div>
      )}
    </div>
  );
}

/** What the outline's colours and marks mean; only those that are there. */
export function OutlineLegend({ built }: { built: Built | null }) {
  const o = built?.outline;
  const line = (colour: string, text: string) => (
    <span className="flex items-center gap-2">
      <i className="h-[3px] w-5" style={{ background: colour }} /> {text}
    </span>
  );
  return (
    <div className="plate absolute right-3 top-3 grid gap-1 px-3 py-2 text-[13px]">
      {line("#7df0c8", "outside of the ink")}
      {!!o?.figures.loose && line("#ff9d6b", "islands: fall out when cut through")}
      {!!o?.lines && line("#f2d45c", "centre line")}
      {!!o?.thin.length && line("#ff4f8b", "thinner than the cutter can use")}
      {!!o?.bridges.length && line("#c9b3ff", "bridges")}
      {!!o?.dropped && (
        <span className="flex items-center gap-2">
          <b className="w-5 text-center leading-3 text-[#ff7a5c]">×</b> {o.dropped} dropped specks
        </span>
      )}
      {!!o && <span className="text-[#a9c0b5]">nodes show when zoomed in</span>}
    </div>
  );
}
