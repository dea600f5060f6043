"use client";
import { type RefObject, useRef } from "react";
import { formatLength } from "@oaken/core/units";
import { useActions, useBench, useBenchStore } from "../context.tsx";
import { isDrag, keyOnStage } from "./hands.ts";
import type { Spot } from "../store.ts";
import type { StageScene } from "./scene.ts";

/** Where the scene is drawn: dragged to pan, clicked to select the cut that made the spot. */
export function StageCanvas({
  canvas,
  scene,
}: {
  canvas: RefObject<HTMLCanvasElement | null>;
  scene: StageScene | null;
}) {
  const store = useBenchStore();
  const { select } = useActions();
  const stock = useBench((s) => s.doc.stock);
  const unit = useBench((s) => s.unit);
  const drag = useRef<{ x: number; y: number; moved: boolean } | null>(null);
  const onSpot = (spot: Spot | null) => store.setState({ spot });
  const spotAt = (e: React.PointerEvent): Spot | null => {
    const { left, top } = e.currentTarget.getBoundingClientRect();
    return scene?.pick(e.clientX - left, e.clientY - top) ?? null;
  };
  const n = (v: number) => formatLength(v, unit);
  return (
    <canvas
      ref={canvas}
      tabIndex={0}
      aria-label={
        `The stock, ${n(stock.width)} by ${n(stock.height)} ${unit}, with its computed surface. Arrow ` +
        "keys move the view, plus and minus zoom, F shows all, T tilts."
      }
      role="img"
      className={"absolute inset-0 h-full w-full cursor-grab touch-none outline-offset-[-3px] active:cursor-grabbing"}
      onPointerDown={(e) => {
        drag.current = { x: e.clientX, y: e.clientY, moved: false };
        e.currentTarget.setPointerCapture(e.pointerId);
      }}
      onPointerMove={(e) => {
        if (!drag.current) return onSpot(spotAt(e));
        const { x, y, moved } = drag.current;
        if (!moved && !isDrag(e.clientX - x, e.clientY - y)) return;
        scene?.pan(e.clientX - x, e.clientY - y);
        drag.current = { x: e.clientX, y: e.clientY, moved: true };
      }}
      onPointerUp={(e) => {
        const isClick = drag.current && !drag.current.moved;
        drag.current = null;
        const spot = isClick ? spotAt(e) : null;
        const cut = spot && spot.by > 0 && store.getState().built?.cuts[spot.by - 1];
        if (cut) select(cut.id);
      }}
      onPointerCancel={() => (drag.current = null)}
      onPointerLeave={() => onSpot(null)}
      onKeyDown={(e) => scene && keyOnStage(scene, e.key) && e.preventDefault()}
    />
  );
}
