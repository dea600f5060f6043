"use client";
import {
  CartesianGrid,
  Line,
  LineChart,
  ReferenceArea,
  ReferenceDot,
  ResponsiveContainer,
  XAxis,
  YAxis,
} from "recharts";
import type { Gauge } from "@oaken/core/settings/fields";
import { formatLength } from "@oaken/core/units";

/** The chart goes on beyond the larger of where one stands and where teeth break by this. */
const BEYOND = 1.15;
const HEIGHT = 128;
const mm = (chip: number): string => formatLength(chip, "mm", 4);

/** The chip that each feed makes, the band in which a cutter cuts well, and where one stands. */
export default function ChipChart({ gauge, feed }: { gauge: Gauge; feed: number }) {
  const { value, rubs, breaks, most } = gauge;
  const aFeed = value / feed;
  const end = Math.min(Math.max(most, feed), Math.max(BEYOND * feed, (BEYOND * breaks) / aFeed));
  const line = [0, end].map((f) => ({ feed: f, chip: f * aFeed }));
  const top = Math.max(line[1].chip, breaks) * 1.05;
  const where = value < rubs ? "rubbing" : value > breaks ? "breaking" : "cutting well";
  const axis = { tick: { fontSize: 11, fill: "#55605b" }, stroke: "#cfd5cb", tickLine: false } as const;
  return (
    <figure
      className="mt-2"
      aria-label={`Each tooth takes ${mm(value)} mm: ${where}, between ${mm(rubs)} and ${mm(breaks)} mm`}
    >
      <ResponsiveContainer width="100%" height={HEIGHT}>
        <LineChart data={line} margin={{ top: 6, right: 8, bottom: 0, left: -14 }} accessibilityLayer={false}>
          <CartesianGrid stroke="#e7eae3" vertical={false} />
          <ReferenceArea y1={rubs} y2={Math.min(breaks, top)} fill="#1f6b57" fillOpacity={0.16} />
          <XAxis dataKey="feed" type="number" domain={[0, end]} tickCount={4} {...axis} />
          <YAxis type="number" domain={[0, top]} tickCount={4} tickFormatter={(v: number) => v.toFixed(2)} {...axis} />
          <Line dataKey="chip" stroke="#1c2321" dot={false} isAnimationActive={false} />
          <ReferenceDot
            x={feed}
            y={value}
            r={5}
            fill={where === "cutting well" ? "#1f6b57" : "#b3261e"}
            stroke="#ffffff"
          />
        </LineChart>
      </ResponsiveContainer>
      <figcaption className="text-[12.5px] leading-[17px] text-soft">
        Each tooth takes <b className="font-semibold text-ink">{mm(value)} mm</b>: {where}. Thinner than {mm(rubs)} it
        rubs, thicker than {mm(breaks)} it breaks or bends.
      </figcaption>
    </figure>
  );
}
