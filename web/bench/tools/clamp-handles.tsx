"use client";
import { useRef } from "react";
import type { Clamp } from "@oaken/core/job/document";
import { removeClamp } from "@oaken/core/job/edit";
import { arrowMove } from "../../ui/arrows.ts";
import { useHeld } from "../../ui/held.ts";
import { useActions, useBench } from "../context.tsx";
import { useCamera } from "../stage/camera.ts";
import type { StageScene } from "../stage/scene.ts";

/** Arrow keys move a clamp so far, mm; with Shift ten times as far. */
const NUDGE = 1;
const FAR = 10;
/** A clamp is kept to tenths of a millimetre: nobody measures one finer. */
const tenth = (v: number): number => Math.round(v * 10) / 10;

interface Drag {
  i: number;
  /** where the pointer took it, and how far it is from there now, mm */
  from: { x: number; y: number };
  dx: number;
  dy: number;
}

/** Clamps and screws where the stock is selected: dragged on the stage, moved by arrows, taken away by Delete. */
export function ClampHandles({ scene }: { scene: StageScene }) {
  const clamps = useBench((s) => s.doc.stock.clamps) ?? [];
  const isStock = useBench(
    (s) => !s.doc.makings.some((m) => m.id === s.selected) && !s.doc.cuts.some((c) => c.id === s.selected),
  );
  const { change } = useActions();
  useCamera(scene);
  const svg = useRef<SVGSVGElement>(null);
  const { drawn: shown, latest, set: setDrag } = useHeld<Drag | null>(null);
  if (!isStock || clamps.length === 0) return null;
  const at = (e: { clientX: number; clientY: number }) => {
    const r = svg.current!.getBoundingClientRect();
    return scene.eye.placeAt(e.clientX - r.left, e.clientY - r.top);
  };
  const name = (c: Clamp, i: number) => `${c.round ? "screw" : "clamp"} ${i + 1}`;
  const move = (i: number, dx: number, dy: number) =>
    change(name(clamps[i], i), (d) => {
      const c = d.stock.clamps![i];
      c.x = tenth(c.x + dx);
      c.y = tenth(c.y + dy);
    });
  const remove = (i: number) => change(`remove ${name(clamps[i], i)}`, (d) => removeClamp(d, i));
  return (
    <svg
      ref={svg}
      className="pointer-events-none absolute inset-0 h-full w-full"
      role="group"
      aria-label="Clamps and screws on the stage"
    >
      {clamps.map((c, i) => {
        const off = shown?.i === i ? shown : { dx: 0, dy: 0 };
        const low = scene.eye.project(c.x + off.dx, c.y + off.dy, c.tall);
        const high = scene.eye.project(c.x + off.dx + c.width, c.y + off.dy + c.height, c.tall);
        return (
          <rect
            key={i}
            x={Math.min(low.x, high.x)}
            y={Math.min(low.y, high.y)}
            width={Math.abs(high.x - low.x)}
            height={Math.abs(high.y - low.y)}
            rx={c.round ? Math.abs(high.x - low.x) / 2 : 2}
            tabIndex={0}
            role="button"
            aria-label={`${name(c, i)} at x ${c.x.toFixed(1)}, y ${c.y.toFixed(1)} mm`}
            className="pointer-events-auto cursor-move stroke-chalk outline-none focus-visible:stroke-[4px]"
            fill="transparent"
            strokeWidth={2}
            strokeDasharray="5 3"
            onPointerDown={(e) => {
              const from = at(e);
              if (!from) return;
              e.stopPropagation();
              e.currentTarget.setPointerCapture(e.pointerId);
              setDrag({ i, from, dx: 0, dy: 0 });
            }}
            onPointerMove={(e) => {
              const drag = latest.current;
              const q = drag?.i === i ? at(e) : null;
              if (q && drag) setDrag({ ...drag, dx: q.x - drag.from.x, dy: q.y - drag.from.y });
            }}
            onPointerUp={() => {
              const drag = latest.current;
              if (drag && Math.hypot(drag.dx, drag.dy) > 0.1) move(i, drag.dx, drag.dy);
              setDrag(null);
            }}
            onPointerCancel={() => setDrag(null)}
            onKeyDown={(e) => {
              const way = arrowMove(e.key, e.shiftKey ? FAR * NUDGE : NUDGE);
              if (e.key === "Delete" || e.key === "Backspace") remove(i);
              else if (way) move(i, way.dx, way.dy);
              else return;
              e.preventDefault();
              e.stopPropagation();
            }}
          />
        );
      })}
    </svg>
  );
}
