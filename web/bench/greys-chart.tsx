"use client";
import { useMemo } from "react";
import { Area, AreaChart, ReferenceArea, ReferenceLine, ResponsiveContainer, XAxis, YAxis } from "recharts";

const HEIGHT = 48;

/** How many pixels have each grey, from black on the left to white; below a level, 0 to 1, if one is given, is ink. */
export default function GreysChart({ bars, level }: { bars: readonly number[]; level: number | null }) {
  const data = useMemo(() => bars.map((many, i) => ({ grey: (i + 0.5) / bars.length, many })), [bars]);
  return (
    <ResponsiveContainer width="100%" height={HEIGHT}>
      <AreaChart data={data} margin={{ top: 3, right: 0, bottom: 0, left: 0 }} accessibilityLayer={false}>
        <XAxis dataKey="grey" type="number" domain={[0, 1]} hide />
        <YAxis type="number" domain={[0, 1]} hide />
        {level !== null && <ReferenceArea x1={0} x2={level} fill="#1f6b57" fillOpacity={0.16} ifOverflow="hidden" />}
        <Area dataKey="many" type="step" stroke="none" fill="#84918a" fillOpacity={1} isAnimationActive={false} />
        {level !== null && <ReferenceLine x={level} stroke="#c8401f" strokeWidth={2} />}
      </AreaChart>
    </ResponsiveContainer>
  );
}
