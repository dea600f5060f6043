import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { Watched } from "./watched.ts";

/** A worker that does what the test says. */
class Puppet {
  asked: unknown[] = [];
  ended = false;
  onmessage: ((e: { data: unknown }) => void) | null = null;
  onerror: ((e: { message: string; preventDefault(): void }) => void) | null = null;
  onmessageerror: (() => void) | null = null;
  postMessage = (ask: unknown): void => void this.asked.push(ask);
  terminate = (): void => void (this.ended = true);
  say = (data: unknown): void => this.onmessage?.({ data });
  fail = (): void => this.onerror?.({ message: "", preventDefault: () => {} });
}

let puppets: Puppet[];
let lost: boolean[];
let watched: Watched<string, string>;
beforeEach(() => {
  vi.useFakeTimers();
  puppets = [];
  lost = [];
  const start = () => {
    puppets.push(new Puppet());
    return puppets[puppets.length - 1] as unknown as Worker;
  };
  const again = (isAgain: boolean) => {
    lost.push(isAgain);
    if (isAgain) watched.ask("work");
  };
  watched = new Watched<string, string>(start, (answer) => answer === "done", again);
});
afterEach(() => void vi.useRealTimers());

it("a worker that does not load is started again and asked again", () => {
  watched.ask("work");
  puppets[0].fail();
  expect(lost).toEqual([true]);
  expect(puppets[0].ended).toBe(true);
  expect(puppets[1].asked).toEqual(["work"]);
});

it("one that falls silent in the middle of its work is taken to have ended; one that says something is not", () => {
  watched.ask("work");
  for (let k = 0; k < 10; k++) {
    vi.advanceTimersByTime(45_000);
    puppets[0].say("working");
  }
  expect(lost).toEqual([]);
  vi.advanceTimersByTime(61_000);
  expect(lost).toEqual([true]);
});

it("one that has done its work may be silent for ever", () => {
  watched.ask("work");
  puppets[0].say("done");
  vi.advanceTimersByTime(1e7);
  expect(lost).toEqual([]);
});

it("one that says how far it is and then ends, again and again, is left alone in the end too", () => {
  watched.ask("work");
  for (let k = 0; k < 3; k++) {
    puppets[k].say("working");
    puppets[k].fail();
  }
  expect(lost).toEqual([true, true, false]);
});

it("one that ends again and again is left alone in the end, and that is said", () => {
  watched.ask("work");
  for (let k = 0; k < 3; k++) puppets[k].fail();
  expect(lost).toEqual([true, true, false]);
  expect(puppets.length).toBe(3);
});
