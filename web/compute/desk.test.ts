import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { begun } from "@oaken/core/testing/shop";
import { Desk } from "./desk.ts";
import type { BenchWork, DrawnSurface, Packed, Progressing } from "./messages.ts";
import { delivered, Puppet } from "./puppet.ts";

/** A build as the worker sees it: the test answers, first with a coarse proof and then with a fine one. */
interface Build {
  seq: number;
  progress: Progressing;
  first(built: Packed | null): void;
  fine(built: Packed | null): void;
  failFine(e: Error): void;
}
let builds: Build[];
let puppets: BenchPuppet[];
let scrubbed: DrawnSurface | null;
const unasked = () => expect.fail("nobody asked for it");

class BenchPuppet extends Puppet {
  constructor() {
    const work: Partial<BenchWork> = {
      listen: () => {},
      build: ({ seq }, progress) =>
        new Promise((first) => builds.push({ seq, progress, first, fine: unasked, failFine: unasked })),
      refine: (seq) =>
        new Promise((fine, failFine) =>
          Object.assign(
            builds.find((b) => b.seq === seq)!,
            { fine, failFine },
          ),
        ),
      scrub: () => Promise.resolve(scrubbed),
    };
    super(work);
    puppets.push(this);
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
  [builds, puppets, scrubbed, heard] = [[], [], null, []];
  desk = new Desk();
  desk.onBuilt = (b) => heard.push(b.final ? "fine" : "coarse");
  desk.onProgress = (step) => heard.push(step);
  desk.onSurface = () => heard.push("surface");
  desk.onFailed = (message) => heard.push(message);
  desk.onRestarted = () => heard.push("begun again");
});
afterEach(() => {
  desk.close();
  vi.unstubAllGlobals();
});

it("a word of progress behind the build is left out: the page would say for ever that it works", async () => {
  desk.build(job);
  await delivered();
  const [{ progress, first, fine }] = builds;
  progress("outline", 1);
  await delivered();
  first(built(false));
  await delivered();
  progress("carve", 1);
  await delivered();
  fine(built(true));
  await delivered();
  progress("proof", 1);
  await delivered();
  expect(heard).toEqual(["outline", "coarse", "carve", "fine"]);
});

it("of an older build nothing is shown, whatever still comes of it", async () => {
  desk.build(job);
  desk.build(job);
  await delivered();
  const [older, newer] = builds;
  expect(newer.seq).toBeGreaterThan(older.seq);
  older.progress("outline", 0.5);
  older.first(built(false));
  await delivered();
  older.fine(null);
  newer.first(built(true));
  await delivered();
  expect(heard).toEqual(["fine"]);
});

it("what fails behind a finished proof is told, unless something newer is asked for", async () => {
  desk.build(job);
  await delivered();
  builds[0].first(built(true));
  await delivered();
  builds[0].failFine(new Error("The picture is gone."));
  await delivered();
  desk.build(job);
  await delivered();
  builds[1].first(built(true));
  await delivered();
  desk.build(job);
  builds[1].failFine(new Error("Nobody needs to know."));
  await delivered();
  expect(heard).toEqual(["fine", "The picture is gone.", "fine"]);
});

it("a worker that ends when all is built builds it again: the proof can be scrubbed on", async () => {
  desk.build(job);
  await delivered();
  builds[0].first(built(true));
  await delivered();
  puppets[0].fail();
  await delivered();
  expect(builds.map((b) => b.seq)).toEqual([1, 1]);
  builds[1].first(built(true));
  await delivered();
  scrubbed = surface;
  desk.scrub(0, 5);
  await delivered();
  expect(heard).toEqual(["fine", "begun again", "fine", "surface"]);
});

it("a scrub without a build is answered, so that the next one goes out", async () => {
  desk.scrub(0, 5);
  await delivered();
  scrubbed = surface;
  desk.scrub(0, 6);
  await delivered();
  expect(heard).toEqual(["surface"]);
});
