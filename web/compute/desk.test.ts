import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { begun } from "@oaken/core/testing/shop";
import { Desk } from "./desk.ts";
import type { BenchWork, BuildAsk, DrawnSurface, Packed } from "./messages.ts";
import { delivered, Puppet } from "./puppet.ts";

interface Build {
  ask: BuildAsk;
  take: Parameters<BenchWork["build"]>[1];
  progress: Parameters<BenchWork["build"]>[2];
}

/** Every worker of the page: what it is asked to build waits for the test, which plays the worker. */
let builds: Build[];
let scrubbed: DrawnSurface | null;

class BenchPuppet extends Puppet {
  constructor() {
    const work: Partial<BenchWork> = {
      listen: () => {},
      build: (ask, take, progress) => (builds.push({ ask, take, progress }), Promise.resolve()),
      scrub: () => Promise.resolve(scrubbed),
    };
    super(work);
  }
}

const job = begun("sign", { name: "art.png", sha: "a".repeat(64), width: 60, height: 40 });
const surface = { cell: 1, width: 1, height: 1 } as DrawnSurface;
const built = (final: boolean): Packed =>
  ({ job, final, problem: null, makings: {}, cuts: [], surface: { n: 1, thing: surface } }) as unknown as Packed;

let desk: Desk;
let heard: string[];
beforeEach(() => {
  vi.stubGlobal("Worker", BenchPuppet);
  [builds, scrubbed, heard] = [[], null, []];
  desk = new Desk();
  desk.onBuilt = (b) => heard.push(b.final ? "final" : "first");
  desk.onProgress = (step) => heard.push(step);
  desk.onSurface = () => heard.push("surface");
});
afterEach(() => {
  desk.close();
  vi.unstubAllGlobals();
});

it("a word of progress behind the build is left out: the page would say for ever that it works", async () => {
  desk.build(job);
  await delivered();
  const [{ take, progress }] = builds;
  progress("outline", 1);
  await delivered();
  await take(built(false));
  progress("carve", 1);
  await delivered();
  await take(built(true));
  progress("proof", 1);
  await delivered();
  expect(heard).toEqual(["outline", "first", "carve", "final"]);
});

it("of an older build nothing is shown, whatever still comes of it", async () => {
  desk.build(job);
  desk.build(job);
  await delivered();
  const [older, newer] = builds;
  expect(newer.ask.seq).toBeGreaterThan(older.ask.seq);
  older.progress("outline", 0.5);
  await older.take(built(false));
  await newer.take(built(true));
  await delivered();
  expect(heard).toEqual(["final"]);
});

it("a scrub without a build is answered, so that the next one goes out", async () => {
  desk.scrub(0, 5);
  await delivered();
  scrubbed = surface;
  desk.scrub(0, 6);
  await delivered();
  expect(heard).toEqual(["surface"]);
});
