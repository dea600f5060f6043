import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { emptyJob } from "@oaken/core/job/document";
import { createBench } from "./store.ts";
import { SHOP } from "@oaken/core/testing/shop";
import { addBoard, documentOf } from "@oaken/core/job/boards";

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

const bench = () => {
  const b = createBench("job", documentOf(emptyJob(SHOP, "test")), 1, null);
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

describe("saving", () => {
  /** A server that answers when told to, in order. */
  function server() {
    const asked: { base: number; margin: number }[] = [];
    const answers: ((r: Response | "lost") => void)[] = [];
    vi.stubGlobal("fetch", (_: string, init: { body: string }) => {
      const { base, document } = JSON.parse(init.body);
      asked.push({ base, margin: document.boards[0].stock.margin });
      return new Promise<Response>((done, failed) =>
        answers.push((r) => (r === "lost" ? failed(new TypeError("network")) : done(r))),
      );
    });
    const answer = async (r: Response | "lost") => {
      answers.shift()!(r);
      await vi.advanceTimersByTimeAsync(0);
    };
    return { asked, answer, saved: (revision: number) => answer(Response.json({ revision })) };
  }
  afterEach(() => void vi.unstubAllGlobals());

  it("goes one at a time: a change made meanwhile waits for the revision before it", async () => {
    const s = server();
    const b = bench();
    b.margin(11);
    await vi.advanceTimersByTimeAsync(800);
    b.margin(12);
    await vi.advanceTimersByTimeAsync(5000);
    expect(s.asked).toEqual([{ base: 1, margin: 11 }]);
    await s.saved(2);
    await vi.advanceTimersByTimeAsync(1000);
    expect(s.asked[1]).toEqual({ base: 2, margin: 12 });
    await s.saved(3);
    expect(b.store.getState()).toMatchObject({ revision: 3, save: { state: "saved" } });
  });

  it("sends again, as it was, what no answer came to; then what is newer", async () => {
    const s = server();
    const b = bench();
    b.margin(11);
    await vi.advanceTimersByTimeAsync(800);
    await s.answer("lost");
    expect(b.store.getState().save.state).toBe("failed");
    b.margin(13);
    await vi.advanceTimersByTimeAsync(5000);
    expect(s.asked[1]).toEqual({ base: 1, margin: 11 });
    await s.saved(2);
    await vi.advanceTimersByTimeAsync(1000);
    expect(s.asked[2]).toEqual({ base: 2, margin: 13 });
  });

  it("stops, and says why, where another window was first", async () => {
    const s = server();
    const b = bench();
    b.margin(11);
    await vi.advanceTimersByTimeAsync(800);
    await s.answer(Response.json({ code: "stale", message: "changed elsewhere" }, { status: 409 }));
    expect(b.store.getState().save).toMatchObject({ state: "stale", message: "changed elsewhere" });
    b.margin(12);
    await vi.advanceTimersByTimeAsync(20_000);
    expect(s.asked.length).toBe(1);
    expect(b.now()).toBe(12);
  });
});

describe("boards", () => {
  it("a change is made on the board that is shown, and undo goes back to the board where it was made", () => {
    const b = bench();
    const board = () => b.store.getState().doc.board.id;
    b.actions.changeWhole("add a board", addBoard);
    expect(board()).toBe("board-2");
    b.margin(33);
    b.actions.showBoard("board");
    expect(b.now()).not.toBe(33);
    b.margin(44);
    expect(b.store.getState().whole.boards.map((o) => o.stock.margin)).toEqual([44, 33]);
    b.actions.showBoard("board-2");
    b.actions.undo();
    expect([board(), b.now()]).toEqual(["board", 5]);
    b.actions.undo();
    expect([board(), b.now()]).toEqual(["board-2", 5]);
    b.actions.undo();
    expect(b.store.getState().whole.boards).toHaveLength(1);
    expect(board()).toBe("board");
    b.actions.redo();
    expect(board()).toBe("board-2");
  });
});
