import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { delivered, Puppet } from "./puppet.ts";
import { Ended, helperOf, Watched } from "./watched.ts";

/** What the tests' workers do: work that goes on until the test ends it. */
interface Work {
  work(): Promise<string>;
}

/** A worker that does what the test says. */
class WorkPuppet extends Puppet {
  asked = 0;
  private readonly answers: ((answer: string) => void)[] = [];
  constructor() {
    const work: Work = { work: () => new Promise((done) => (this.asked++, this.answers.push(done))) };
    super(work);
  }
  answer = (): void => this.answers.shift()?.("done");
}

let puppets: WorkPuppet[];
let lost: boolean[];
let came: unknown[];
let watched: Watched<Work>;
const ask = () =>
  void watched
    .call((w) => w.work())
    .then(
      (answer) => came.push(answer),
      (e: unknown) => came.push(e),
    );
beforeEach(() => {
  vi.useFakeTimers({ toFake: ["setTimeout", "clearTimeout"] });
  [puppets, lost, came] = [[], [], []];
  const start = () => {
    puppets.push(new WorkPuppet());
    return helperOf<Work>(puppets[puppets.length - 1] as unknown as Worker);
  };
  watched = new Watched<Work>(start, (again) => {
    lost.push(again);
    if (again) ask();
  });
});
afterEach(() => {
  watched.close();
  vi.useRealTimers();
});

it("a worker that does not load is started again and asked again; who asked hears that it ended", async () => {
  ask();
  puppets[0].fail();
  await delivered();
  expect(lost).toEqual([true]);
  expect(puppets[0].ended).toBe(true);
  expect(puppets[1].asked).toBe(1);
  expect(came).toEqual([new Ended()]);
});

it("one that falls silent in its work is taken to have ended; one that says something is not", async () => {
  ask();
  await delivered();
  for (let k = 0; k < 10; k++) {
    vi.advanceTimersByTime(45_000);
    watched.alive();
  }
  expect(lost).toEqual([]);
  vi.advanceTimersByTime(61_000);
  expect(lost).toEqual([true]);
});

it("one that has done its work may be silent for ever", async () => {
  ask();
  await delivered();
  puppets[0].answer();
  await delivered();
  expect(came).toEqual(["done"]);
  vi.advanceTimersByTime(1e7);
  expect(lost).toEqual([]);
});

it("one of whom two things are asked is watched until both are done", async () => {
  ask();
  ask();
  await delivered();
  puppets[0].answer();
  await delivered();
  vi.advanceTimersByTime(61_000);
  expect(lost).toEqual([true]);
});

it("what may take long without a word is not watched", async () => {
  void watched.call((w) => w.work(), false).catch(() => {});
  await delivered();
  vi.advanceTimersByTime(1e7);
  expect(lost).toEqual([]);
});

it("one that says how far it is and then ends, again and again, is left alone in the end too", () => {
  ask();
  for (let k = 0; k < 3; k++) {
    watched.alive();
    puppets[k].fail();
  }
  expect(lost).toEqual([true, true, false]);
});

it("one that ends again and again is left alone in the end, and that is said", () => {
  ask();
  for (let k = 0; k < 3; k++) puppets[k].fail();
  expect(lost).toEqual([true, true, false]);
  expect(puppets.length).toBe(3);
});

it("an answer in between counts: the ends begin anew", async () => {
  ask();
  for (let k = 0; k < 2; k++) puppets[k].fail();
  await delivered();
  puppets[2].answer();
  await delivered();
  ask();
  await delivered();
  puppets[2].fail();
  expect(lost).toEqual([true, true, true]);
});
