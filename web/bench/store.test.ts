import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { emptyJob } from "@oaken/core/job/document";
import { createBench } from "./store.ts";

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

const bench = () => {
  const b = createBench("job", emptyJob("test"), 1, null);
  const margin = (v: number, gesture?: string) => b.actions.change("margin", (d) => void (d.stock.margin = v), gesture);
  return { ...b, margin, now: () => b.store.getState().doc.stock.margin, steps: () => b.store.getState().past.length };
};
/** Time passes for the clock only: nothing is saved. */
const later = (ms: number) => vi.setSystemTime(Date.now() + ms);

it("one way of a slider is one step of undo, however slowly the page keeps up", () => {
  const b = bench();
  const before = b.now();
  for (let k = 1; k <= 5; k++) {
    b.margin(10 + k, "margin 1");
    later(4000);
  }
  expect(b.steps()).toBe(1);
  b.actions.undo();
  expect(b.now()).toBe(before);
  b.actions.redo();
  expect(b.now()).toBe(15);
});

it("gripping it again is another step, even at once", () => {
  const b = bench();
  b.margin(11, "margin 1");
  b.margin(12, "margin 2");
  expect(b.steps()).toBe(2);
  b.actions.undo();
  expect(b.now()).toBe(11);
});

it("what follows an undo never joins what went before it", () => {
  const b = bench();
  b.margin(11, "margin 1");
  b.margin(12, "margin 2");
  b.actions.undo();
  b.margin(13, "margin 1");
  expect(b.steps()).toBe(2);
  b.actions.undo();
  expect(b.now()).toBe(11);
});

it("changes without a gesture join only when they come quickly", () => {
  const b = bench();
  b.margin(11);
  later(300);
  b.margin(12);
  expect(b.steps()).toBe(1);
  later(2000);
  b.margin(13);
  expect(b.steps()).toBe(2);
});
