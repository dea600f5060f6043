import { type RefObject, useEffect } from "react";
import { arrowMove } from "../../ui/arrows.ts";
import type { Bench } from "../store.ts";
import type { StageScene } from "./scene.ts";

/** How far an arrow key moves the view, px. */
const PAN_STEP = 40;
/** A press becomes a drag after so many pixels. */
const DRAG_FROM = 3;
/** Zoom for a key, for a pixel of the wheel, and at most for one turn of it. */
const KEY_ZOOM = 1.25;
const WHEEL_ZOOM = 0.0015;
const MOST_WHEEL = 0.4;
/** Two fingers dragged up so many pixels tilt from straight above to the lowest view. */
const TILT_WAY = 260;
/** Two fingers zoom once their distance has changed by this share; until then they pan or tilt. */
const PINCH_FROM = 0.06;

/** Keys on the stage. @returns whether the key was one of its own */
export function keyOnStage(scene: StageScene, key: string): boolean {
  const way = arrowMove(key, PAN_STEP);
  // The view moves with the key: what is seen, the other way. Pixels count downward.
  if (way) scene.pan(-way.dx, way.dy);
  else if (key === "+" || key === "=") scene.zoom(1 / KEY_ZOOM);
  else if (key === "-") scene.zoom(KEY_ZOOM);
  else return false;
  return true;
}

/** A finger on the screen: where it is, and on what it was put. */
interface Finger {
  x: number;
  y: number;
  on: EventTarget;
}

/** Two places on the screen as one: their middle and distance. */
interface Pair {
  x: number;
  y: number;
  apart: number;
}

function pairOf(fingers: ReadonlyMap<number, Finger>): Pair {
  const [a, b] = [...fingers.values()];
  return { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2, apart: Math.hypot(a.x - b.x, a.y - b.y) };
}

/**
 * Lets hands move the view: the wheel zooms, one finger or the pointer pans where no tool has it, two fingers zoom and
 * pan wherever they are, and tilt when they are dragged up or down together without a tool in hand.
 */
export function useHands(box: RefObject<HTMLDivElement | null>, scene: StageScene | null, store: Bench["store"]): void {
  useEffect(() => {
    const el = box.current;
    if (!el || !scene) return;
    const fingers = new Map<number, Finger>();
    let before: Pair | null = null;
    let does: "zoom" | "tilt" | null = null;
    const down = (e: PointerEvent) => {
      if (e.pointerType !== "touch") return;
      fingers.set(e.pointerId, { x: e.clientX, y: e.clientY, on: e.target! });
      if (fingers.size !== 2) return;
      // What the first finger had begun is given up.
      const [[first, { on }]] = fingers;
      on.dispatchEvent(new PointerEvent("pointercancel", { pointerId: first, bubbles: true }));
      before = pairOf(fingers);
      does = null;
      e.stopPropagation();
    };
    const move = (e: PointerEvent) => {
      const finger = fingers.get(e.pointerId);
      if (!finger) return;
      [finger.x, finger.y] = [e.clientX, e.clientY];
      if (!before) return;
      e.stopPropagation();
      if (fingers.size !== 2) return;
      const now = pairOf(fingers);
      const { left, top } = el.getBoundingClientRect();
      const isPinch = Math.abs(now.apart / before.apart - 1) > PINCH_FROM;
      const isUpward = Math.abs(now.y - before.y) > 2 * Math.abs(now.x - before.x);
      if (does === null && !isPinch && Math.hypot(now.x - before.x, now.y - before.y) < 4 * DRAG_FROM) return;
      does ??= !isPinch && isUpward && store.getState().tool === null ? "tilt" : "zoom";
      if (does === "tilt") {
        const tilt = store.getState().tilt + (before.y - now.y) / TILT_WAY;
        store.setState({ tilt: Math.max(0, Math.min(1, tilt)) });
      } else {
        scene.pan(now.x - before.x, now.y - before.y);
        scene.zoom(before.apart / Math.max(1, now.apart), now.x - left, now.y - top);
      }
      before = now;
    };
    const up = (e: PointerEvent) => {
      // The finger whose gesture is given up is still there.
      if (!e.isTrusted) return;
      if (!fingers.delete(e.pointerId) || !before) return;
      e.stopPropagation();
      if (fingers.size === 0) before = null;
    };
    const wheel = (e: WheelEvent) => {
      e.preventDefault();
      const { left, top } = el.getBoundingClientRect();
      const turn = Math.max(-MOST_WHEEL, Math.min(MOST_WHEEL, e.deltaY * WHEEL_ZOOM));
      scene.zoom(Math.exp(turn), e.clientX - left, e.clientY - top);
    };
    const options = { capture: true };
    el.addEventListener("pointerdown", down, options);
    el.addEventListener("pointermove", move, options);
    el.addEventListener("pointerup", up, options);
    el.addEventListener("pointercancel", up, options);
    el.addEventListener("wheel", wheel, { passive: false });
    return () => {
      el.removeEventListener("pointerdown", down, options);
      el.removeEventListener("pointermove", move, options);
      el.removeEventListener("pointerup", up, options);
      el.removeEventListener("pointercancel", up, options);
      el.removeEventListener("wheel", wheel);
    };
  }, [box, scene, store]);
}

/** Whether a pointer has been dragged from where it was put down, px. */
export const isDrag = (dx: number, dy: number): boolean => Math.hypot(dx, dy) > DRAG_FROM;
