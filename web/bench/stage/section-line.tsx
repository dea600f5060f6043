import { useRef } from "react";
import type { SectionLine } from "@oaken/core/proof/section";
import { arrowMove } from "../../ui/arrows.ts";
import { useBench, useBenchStore } from "../context.tsx";
import { useCamera } from "./camera.ts";
import type { StageScene } from "./scene.ts";

/** How far arrow keys move an end, mm; with shift ten times as far. */
const STEP = 1;
const ENDS = [
  { x: "x0", y: "y0", label: "One end of the section" },
  { x: "x1", y: "y1", label: "Other end of the section" },
] as const;

/** Across the middle of the stock, from side to side. */
export const acrossMiddle = ({ width, height }: { width: number; height: number }): SectionLine => ({
  x0: 0,
  y0: height / 2,
  x1: width,
  y1: height / 2,
});

/** The line along which the piece is cut open, its ends and itself moved by hand. */
export function SectionOnStage({ scene }: { scene: StageScene }) {
  const store = useBenchStore();
  const at = useBench((s) => s.section);
  const { width, height } = useBench((s) => s.doc.stock);
  const grip = useRef<{ x: number; y: number; line: SectionLine } | null>(null);
  useCamera(scene);
  if (!at) return null;
  const { line, share } = at;
  const a = scene.eye.project(line.x0, line.y0, 0);
  const b = scene.eye.project(line.x1, line.y1, 0);
  const within = (v: number, most: number) => Math.max(0, Math.min(most, v));
  const set = (to: SectionLine) => {
    const inside = { x0: within(to.x0, width), y0: within(to.y0, height) };
    const next = { ...inside, x1: within(to.x1, width), y1: within(to.y1, height) };
    // Both ends in one place are no line.
    if (Math.hypot(next.x1 - next.x0, next.y1 - next.y0) < 1) return;
    store.setState({ section: { line: next, share: null } });
  };
  const on = (e: React.PointerEvent) => {
    const r = e.currentTarget.closest("svg")!.getBoundingClientRect();
    return scene.pick(e.clientX - r.left, e.clientY - r.top);
  };
  const hold = (e: React.PointerEvent) => {
    const p = on(e);
    if (!p) return;
    grip.current = { x: p.x, y: p.y, line };
    e.currentTarget.setPointerCapture(e.pointerId);
    e.stopPropagation();
  };
  const drag = (e: React.PointerEvent, moves: readonly (typeof ENDS)[number][]) => {
    const p = e.buttons && grip.current ? on(e) : null;
    if (!p) return;
    const { x, y, line: from } = grip.current!;
    const to = { ...from };
    for (const end of moves) {
      to[end.x] = from[end.x] + p.x - x;
      to[end.y] = from[end.y] + p.y - y;
    }
    set(to);
  };
  return (
    <svg className="pointer-events-none absolute inset-0 h-full w-full">
      <g className="pointer-events-auto">
        <line
          x1={a.x}
          y1={a.y}
          x2={b.x}
          y2={b.y}
          stroke="transparent"
          strokeWidth="14"
          className="cursor-move"
          onPointerDown={hold}
          onPointerMove={(e) => drag(e, ENDS)}
        />
        <line x1={a.x} y1={a.y} x2={b.x} y2={b.y} stroke="#14231e" strokeWidth="3.5" pointerEvents="none" />
        <line x1={a.x} y1={a.y} x2={b.x} y2={b.y} stroke="#f2d45c" strokeWidth="1.5" pointerEvents="none" />
        {share !== null && (
          <circle cx={a.x + share * (b.x - a.x)} cy={a.y + share * (b.y - a.y)} r="4" fill="#f2d45c" stroke="#14231e" />
        )}
        {ENDS.map((end, k) => (
          <circle
            key={end.label}
            cx={k === 0 ? a.x : b.x}
            cy={k === 0 ? a.y : b.y}
            r="7"
            fill="#14231e"
            stroke="#f2d45c"
            strokeWidth="2"
            role="slider"
            tabIndex={0}
            aria-label={end.label}
            aria-valuenow={Math.round(line[end.x])}
            aria-valuetext={`${Math.round(line[end.x])} from the left, ${Math.round(line[end.y])} from the front`}
            className="cursor-grab"
            onPointerDown={hold}
            onPointerMove={(e) => drag(e, [end])}
            onKeyDown={(e) => {
              const way = arrowMove(e.key, e.shiftKey ? 10 * STEP : STEP);
              if (!way) return;
              set({ ...line, [end.x]: line[end.x] + way.dx, [end.y]: line[end.y] + way.dy });
              e.preventDefault();
              e.stopPropagation();
            }}
          />
        ))}
      </g>
    </svg>
  );
}
