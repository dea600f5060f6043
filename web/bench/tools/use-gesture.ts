import { useEffect, useRef, useState } from "react";
import { arrowMove } from "../../ui/arrows.ts";
import { useHeld } from "../../ui/held.ts";
import type { Space } from "./space.ts";
import type { Tool } from "./tools.ts";

/** Where the handles stand before anyone has dragged them: this share of the picture inside it. */
const INSET = 0.08;
/** A stroke takes a point once the hand is so far from the last one, px of the picture. */
const STROKE_STEP = 3;
/** An arrow key moves a place so far, mm of the stock; with Shift ten times as far, with Alt a tenth. */
const STEP = 1;

/** A gesture on the picture, by pointer or by keys: pixels of the framed picture all through. */
export interface Hand {
  /** points made so far, x y by turns, as they were when the page was drawn */
  points: number[];
  /** points made so far, as the last event left them */
  made(): number[];
  /** where the keyboard's crosshair stands; null until a key has moved it */
  cursor: [number, number] | null;
  /** the pointer goes down, moves, comes up, is taken away */
  down(p: [number, number]): void;
  move(p: [number, number]): void;
  up(): void;
  cancel(): void;
  /** @returns whether the key was one of its own */
  key(e: { key: string; shiftKey: boolean; altKey: boolean }): boolean;
  /** a corner's handle moved by its own arrows */
  moveCorner(i: number, dx: number, dy: number): void;
}

/** How far an arrow key moves something, px of the picture; null for other keys. */
export function keyStep(e: { key: string; shiftKey: boolean; altKey: boolean }, space: Space) {
  const far = e.shiftKey ? 10 : 1;
  const way = arrowMove(e.key, STEP * space.perMm * (e.altKey ? 0.1 : far));
  // Pixels run down.
  return way && { dx: way.dx, dy: -way.dy };
}

/**
 * Points of a gesture as a hand makes them. With the keyboard arrows move a crosshair, Enter puts the hand down and
 * takes it up again: once for a click, twice for a drag, and a stroke follows the crosshair in between.
 * @param done takes the points of a finished gesture; not called for corners, which are applied
 */
export function useGesture(
  id: string,
  gesture: Tool["gesture"],
  space: Space | null,
  done: (points: number[]) => void,
): Hand {
  const { drawn, latest: made, set: setPoints } = useHeld<number[]>([]);
  const [cursor, setCursor] = useState<[number, number] | null>(null);
  /** the corner that is dragged, 0 for other gestures; null while the hand is up */
  const held = useRef<number | null>(null);
  const [width, height] = [space?.width ?? 0, space?.height ?? 0];
  useEffect(() => {
    held.current = null;
    setCursor(null);
    const inset = [INSET, INSET, 1 - INSET, INSET, 1 - INSET, 1 - INSET, INSET, 1 - INSET];
    setPoints(gesture === "corners" ? inset.map((v, i) => v * (i % 2 ? height : width)) : []);
  }, [id, gesture, width, height, setPoints]);

  const inside = (p: [number, number]): [number, number] => [
    Math.max(0, Math.min(width, p[0])),
    Math.max(0, Math.min(height, p[1])),
  ];
  const nearest = (p: [number, number]): number => {
    const at = made.current;
    const far = [0, 1, 2, 3].map((i) => Math.hypot(at[2 * i] - p[0], at[2 * i + 1] - p[1]));
    return far.indexOf(Math.min(...far));
  };
  const down = (p: [number, number]) => {
    held.current = gesture === "corners" ? nearest(p) : 0;
    if (gesture !== "corners") setPoints(gesture === "click" ? p : [...p, ...p]);
  };
  const move = (p: [number, number]) => {
    if (held.current === null) return;
    const before = made.current;
    if (gesture === "corners") setPoints(before.map((v, i) => (i >> 1 === held.current ? p[i % 2] : v)));
    else if (gesture === "drag") setPoints([before[0], before[1], ...p]);
    else if (gesture === "stroke") {
      const [x, y] = before.slice(-2);
      if (Math.hypot(x - p[0], y - p[1]) > STROKE_STEP) setPoints([...before, ...p]);
    }
  };
  const finish = (whole: number[]) => {
    held.current = null;
    if (gesture === "corners") return;
    done(whole);
    setPoints([]);
  };
  const key: Hand["key"] = (e) => {
    if (!space || gesture === "corners") return false;
    const at = cursor ?? ([width / 2, height / 2] as [number, number]);
    const step = keyStep(e, space);
    if (step) {
      const to = inside([at[0] + step.dx, at[1] + step.dy]);
      setCursor(to);
      move(to);
      return true;
    }
    if (e.key !== "Enter" && e.key !== " ") return false;
    setCursor(at);
    if (gesture === "click") finish(at);
    else if (held.current === null) down(at);
    else finish(made.current);
    return true;
  };
  return {
    points: drawn,
    made: () => made.current,
    cursor,
    down,
    move,
    up: () => held.current !== null && finish(made.current),
    cancel() {
      held.current = null;
      if (gesture !== "corners") setPoints([]);
    },
    key,
    moveCorner(i, dx, dy) {
      const before = made.current;
      const [x, y] = inside([before[2 * i] + dx, before[2 * i + 1] + dy]);
      setPoints(before.map((v, k) => (k >> 1 === i ? [x, y][k % 2] : v)));
    },
  };
}
