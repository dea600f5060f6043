import { formatLength, type Unit } from "@oaken/core/units";
import type { Built, DrawnCut } from "../../compute/messages.ts";
import { useBench, useParts } from "../context.tsx";
import { SHOWN } from "../store.ts";
import { CUT_COLOURS } from "./board.ts";
import { givenBy } from "./follow.ts";

/** Beside the light, or under it where there is no room. */
const PLACE = "absolute right-[92px] top-3 max-[1100px]:right-3 max-[1100px]:top-[92px]";

/** What the colours and marks on the stage mean, where any have a meaning. */
export function Legends() {
  const { built, unit, colouring } = useParts("built", "unit", "colouring");
  const hasPaths = useBench((s) => s.mixer.paths > SHOWN);
  const isOutline = useBench((s) => givenBy(s) === "shapes");
  if (isOutline) return <OutlineLegend built={built} />;
  if (!built) return null;
  if (hasPaths || colouring === "depth") return <Legend cuts={built.cuts} unit={unit} rapids={hasPaths} />;
  if (colouring === "cut") return <CutLegend built={built} />;
  return colouring === "left" ? <LeftLegend built={built} unit={unit} /> : null;
}

/** What the depth colours stand for, in the unit at hand. */
function Legend({ cuts, unit, rapids }: { cuts: readonly DrawnCut[]; unit: Unit; rapids: boolean }) {
  let deepest = 0;
  for (const c of cuts) if (c.on) deepest = Math.max(deepest, -c.minZ);
  return (
    <div className={`${PLACE} plate num w-44 px-3 py-2`}>
      <div>depth, {unit}</div>
      <div
        className="my-1 h-2 rounded"
        style={{ background: "linear-gradient(90deg,#F8E7B0,#F0A848,#CF4F4B,#5B2A5E)" }}
      />
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

/** Which colour stands for which cut. */
function CutLegend({ built }: { built: Built }) {
  return (
    <div className={`${PLACE} plate grid max-w-56 gap-1 px-3 py-2 text-[13px]`}>
      {built.job.cuts.map((c, i) =>
        c.on ? (
          <span key={c.id} className="flex min-w-0 items-center gap-2">
            <Swatch colour={CUT_COLOURS[i % CUT_COLOURS.length]} />
            <span className="truncate">{c.name}</span>
          </span>
        ) : null,
      )}
    </div>
  );
}

/** How high stock stands above what the cuts were asked for. */
function LeftLegend({ built, unit }: { built: Built; unit: Unit }) {
  let [lost, uncut, area] = [0, 0, 0];
  for (const c of built.cuts)
    if (c.left) {
      lost += c.left.lost;
      uncut += c.left.uncut;
      area += c.left.area;
    }
  const n = (v: number) => formatLength(v, unit, unit === "mm" ? 1 : 2);
  const said = (v: number) => `${v.toFixed(1)} mm² · ${((100 * v) / Math.max(area, 1e-9)).toFixed(2)} %`;
  return (
    <div className={`${PLACE} plate w-72 px-3 py-2 text-[13px]`}>
      {!built.final && <p>for the finished proof only: it follows</p>}
      <p className="num">above what was asked, {unit}</p>
      <div className="my-1 h-2 rounded" style={{ background: "linear-gradient(90deg,#F0B85A,#CF4F4B,#5B2A5E)" }} />
      <p className="num flex justify-between">
        <span>{unit === "mm" ? "0.1" : "0.004"}</span>
        <span>{n(1)} and more</span>
      </p>
      <p className="mt-1 flex justify-between gap-3">
        <span className="whitespace-nowrap">out of reach</span>{" "}
        <span className="num whitespace-nowrap">{said(lost)}</span>
      </p>
      <p className="flex justify-between gap-3">
        <span className="whitespace-nowrap">floor left</span>{" "}
        <span className="num whitespace-nowrap">{said(uncut)}</span>
      </p>
    </div>
  );
}

/** What the outline's colours and marks mean; only those that are there. */
function OutlineLegend({ built }: { built: Built | null }) {
  const o = built?.shown.shapes?.outline;
  const line = (colour: string, text: string) => (
    <span className="flex items-center gap-2">
      <i className="h-[3px] w-5" style={{ background: colour }} /> {text}
    </span>
  );
  return (
    <div className={`${PLACE} plate grid gap-1 px-3 py-2 text-[13px]`}>
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

const Swatch = ({ colour }: { colour: string }) => (
  <i className="h-3 w-4 shrink-0 rounded-sm" style={{ background: colour }} />
);
