import { describe, expect, it } from "vitest";
import type { Choice } from "@oaken/core/job/choose";
import type { Tried } from "@oaken/core/job/sets";
import { begun, cutterOf } from "@oaken/core/testing/shop";
import { plansOf } from "./plans.ts";

const asset = { sha: "0".repeat(64), name: "a.png", width: 400, height: 300 };
const left = { area: 0, missing: 0, spare: 0 };
const tried = (seconds: number, ...specs: string[]): Tried => {
  return { cutters: specs.map(cutterOf), seconds, left, isPlanned: false };
};

describe("the ways in which an outcome can be cut", () => {
  const job = begun("relief", asset, { width: 200, height: 150, thickness: 20 });
  const target = job.cuts.find((c) => c.kind === "finish")!.id;
  const choice = (...all: Tried[]): Choice => ({ target, own: false, kind: "rough", tried: all, reason: "" });

  it("are its own cutter alone and the best set before it, each with the cuts of it and the time", () => {
    const [helped, alone] = plansOf(job, choice(tried(900, "flat:6", "flat:3"), tried(950, "flat:10"), tried(2400)));
    expect([helped.seconds, helped.isTaken, alone.seconds, alone.isTaken]).toEqual([900, true, 2400, false]);
    expect(helped.label).toMatch(/6.*3.*first/);
    expect(alone.label).toMatch(/alone$/);
    const rough = (cuts: typeof job.cuts) => cuts.filter((c) => c.kind === "rough").map((c) => c.cutter.diameter);
    expect([rough(helped.cuts), rough(alone.cuts)]).toEqual([[6, 3], []]);
    expect(alone.cuts.map((c) => c.kind)).toContain("finish");
  });

  it("are not offered where there is only one of them, or its own cutter is chosen too", () => {
    expect(plansOf(job, undefined)).toEqual([]);
    expect(plansOf(job, choice(tried(900, "flat:6")))).toEqual([]);
    expect(plansOf(job, choice(tried(900)))).toEqual([]);
    expect(plansOf(job, { ...choice(tried(900, "flat:6"), tried(2400)), own: true })).toEqual([]);
  });
});
