"use client";
import { useRef, useState } from "react";
import { curvePoints, curveThrough, MOST_POINTS } from "@oaken/core/height/curve";
import { arrowMove } from "../ui/arrows.ts";
import { TextField } from "../ui/text-field.tsx";
import { useBench } from "./context.tsx";
import { barsOf } from "./histogram.tsx";

/** The square's sides, px, and the room round it in which points at its edges can be gripped. */
const WIDE = 256;
const HIGH = 132;
const ROOM = 8;
/** Points stand at least this far apart, and arrow keys move them by this; with shift five times as far. */
const STEP = 0.01;

interface Point {
  x: number;
  y: number;
}

const pointsOf = (text: string): Point[] => {
  const { x, y } = curvePoints(text);
  return x.map((v, i) => ({ x: v, y: y[i] }));
};
const textOf = (points: readonly Point[]): string =>
  points.map(({ x, y }) => `${Math.round(x * 1000) / 1000},${Math.round(y * 1000) / 1000}`).join(" ");
const within = (v: number, low: number, high: number) => Math.max(low, Math.min(high, v));

/** What a curve goes by where nothing else is said. */
export const GREY = "grey";

/** Counts the ways of points: each is one step of undo. */
let gestures = 0;

/**
 * The curve from grey to height over the picture's greys, or from how far inward a place lies: its points dragged,
 * added, taken out or typed.
 * @param across what it goes by, in a word; greys are drawn behind theirs
 */
export function CurveField({
  value,
  across,
  onChange,
}: {
  value: string;
  across: string;
  onChange(text: string, gesture?: string): void;
}) {
  const greys = useBench((s) => s.built?.shown.grey?.bins ?? null);
  const bins = across === GREY ? greys : null;
  const [chosen, setChosen] = useState(0);
  const gesture = useRef("");
  const points = pointsOf(value);
  const at = Math.min(chosen, points.length - 1);
  const curve = curveThrough(value);
  const move = (i: number, to: Point) => {
    const next = points.slice();
    next[i] = {
      x: within(to.x, i > 0 ? points[i - 1].x + STEP : 0, i + 1 < points.length ? points[i + 1].x - STEP : 1),
      y: within(to.y, 0, 1),
    };
    onChange(textOf(next), gesture.current || undefined);
  };
  const take = (i: number) => {
    if (points.length > 2) onChange(textOf(points.filter((_, k) => k !== i)));
    setChosen(Math.max(0, i - 1));
  };
  const placeOn = (e: React.PointerEvent | React.MouseEvent): Point => {
    const r = e.currentTarget.closest("svg")!.getBoundingClientRect();
    const k = (WIDE + 2 * ROOM) / r.width;
    return { x: ((e.clientX - r.left) * k - ROOM) / WIDE, y: 1 - ((e.clientY - r.top) * k - ROOM) / HIGH };
  };
  const add = (e: React.MouseEvent) => {
    const p = placeOn(e);
    const i = points.findIndex((q) => q.x > p.x);
    const k = i < 0 ? points.length : i;
    const isFree = points.every((q) => Math.abs(q.x - p.x) > STEP);
    if (points.length >= MOST_POINTS || !isFree || p.x < 0 || p.x > 1) return;
    onChange(textOf([...points.slice(0, k), { x: p.x, y: within(p.y, 0, 1) }, ...points.slice(k)]));
    setChosen(k);
  };
  const px = (x: number) => ROOM + WIDE * x;
  const py = (y: number) => ROOM + HIGH * (1 - y);
  return (
    <div className="mt-1">
      <svg
        viewBox={`0 0 ${WIDE + 2 * ROOM} ${HIGH + 2 * ROOM}`}
        role="group"
        aria-label={`Curve from ${across} to height`}
        className="w-full touch-none"
      >
        <rect x={ROOM} y={ROOM} width={WIDE} height={HIGH} rx="3" fill="#fff" stroke="#cfd5cb" onClick={add} />
        {bins && <Greys bins={bins} />}
        <path d={`M${px(0)} ${py(0)}L${px(1)} ${py(1)}`} stroke="#cfd5cb" strokeDasharray="3 3" pointerEvents="none" />
        <path
          d={Array.from({ length: 65 }, (_, k) => `${k === 0 ? "M" : "L"}${px(k / 64)} ${py(curve(k / 64))}`).join("")}
          fill="none"
          stroke="#1f6b57"
          strokeWidth="2"
          pointerEvents="none"
        />
        {points.map((p, i) => (
          <circle
            key={i}
            cx={px(p.x)}
            cy={py(p.y)}
            r="5.5"
            fill={i === at ? "#1f6b57" : "#fff"}
            stroke="#1f6b57"
            strokeWidth="2"
            className="cursor-grab"
            role="slider"
            tabIndex={0}
            aria-label={`Point ${i + 1} of the curve`}
            aria-valuenow={Math.round(100 * p.y)}
            aria-valuemin={0}
            aria-valuemax={100}
            aria-valuetext={`${across} ${Math.round(100 * p.x)} %, height ${Math.round(100 * p.y)} %`}
            onFocus={() => setChosen(i)}
            onPointerDown={(e) => {
              gesture.current = `curve ${++gestures}`;
              setChosen(i);
              e.currentTarget.setPointerCapture(e.pointerId);
            }}
            onPointerMove={(e) => e.buttons && move(i, placeOn(e))}
            onPointerUp={() => (gesture.current = "")}
            onDoubleClick={() => take(i)}
            onKeyDown={(e) => {
              const way = arrowMove(e.key, e.shiftKey ? 5 * STEP : STEP);
              if (way) move(i, { x: p.x + way.dx, y: p.y + way.dy });
              else if (e.key === "Delete" || e.key === "Backspace") take(i);
              else return;
              e.preventDefault();
              e.stopPropagation();
            }}
          />
        ))}
      </svg>
      <div className="flex items-center gap-2 text-[13px] text-soft">
        <Percent label={across} value={points[at].x} set={(x) => move(at, { ...points[at], x })} />
        <Percent label="height" value={points[at].y} set={(y) => move(at, { ...points[at], y })} />
      </div>
    </div>
  );
}

/** The picture's greys behind the curve. */
function Greys({ bins }: { bins: Uint32Array }) {
  return (
    <g pointerEvents="none" fill="#e1e6dd">
      {barsOf(bins).map((b, i) => (
        <rect key={i} x={ROOM + 4 * i} y={ROOM + HIGH * (1 - 0.9 * b)} width="3.4" height={0.9 * HIGH * b} />
      ))}
    </g>
  );
}

/** A coordinate of the point at hand, in percent. */
function Percent({ label, value, set }: { label: string; value: number; set(v: number): void }) {
  const take = (text: string) => {
    const v = Number(text.replace(",", "."));
    if (!Number.isFinite(v)) throw new Error(`${text} is no number. Write percent, from 0 to 100.`);
    set(v / 100);
  };
  return (
    <label className="flex items-center gap-1">
      {label}
      <TextField
        label={`${label} of the point`}
        value={String(Math.round(1000 * value) / 10)}
        onTake={take}
        className="num !h-7 w-14 text-right"
      />
      %
    </label>
  );
}
