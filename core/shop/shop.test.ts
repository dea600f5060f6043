import Ajv from "ajv";
import { describe, expect, it } from "vitest";
import { profileOf } from "../cutters/profile.ts";
import { cutterIn } from "../cutters/rack.ts";
import { CUTS } from "../cuts/register.ts";
import { OUTCOMES } from "../job/outcomes.ts";
import { startJob, usualHelpers } from "../job/start.ts";
import { FIRST_SHOP } from "./first/shop.ts";
import { cutterSchema, dialectSchema, machineSchema, materialSchema } from "./schema.ts";
import { dialectIn, machineIn, materialIn, nearestCutter, type Shop } from "./shop.ts";

const asset = { sha: "a".repeat(64), name: "art.png", width: 60, height: 40 };

describe("what a new workshop starts with", () => {
  const ajv = new Ajv({ strict: true });
  const parts = [
    ["cutters", FIRST_SHOP.cutters, cutterSchema],
    ["materials", FIRST_SHOP.materials, materialSchema],
    ["machines", FIRST_SHOP.machines, machineSchema],
    ["dialects", FIRST_SHOP.dialects, dialectSchema],
  ] as const;
  for (const [name, entries, schema] of parts)
    it(`${name}: each is what a job may hold a copy of, under an id of its own`, () => {
      const check = ajv.compile(schema);
      for (const entry of entries) {
        expect(check(entry), `${entry.name}: ${JSON.stringify(check.errors)}`).toBe(true);
        expect(entry.id).toMatch(/^[a-z0-9-]+$/);
      }
      expect(new Set(entries.map((e) => e.id)).size).toBe(entries.length);
      expect(new Set(entries.map((e) => e.name)).size).toBe(entries.length);
    });
  it("has a cutter for every kind of cut", () => {
    for (const kind of CUTS)
      expect(
        FIRST_SHOP.cutters.some((c) => kind.cutters.includes(c.kind)),
        kind.kind,
      ).toBe(true);
    for (const c of FIRST_SHOP.cutters) expect(profileOf(c).radius).toBeGreaterThan(0);
  });
});

describe("what is taken from a shop", () => {
  it("is a copy: a job that changes its own changes nobody else's", () => {
    for (const take of [
      () => materialIn(FIRST_SHOP, "ash"),
      () => machineIn(FIRST_SHOP, "desk-router"),
      () => dialectIn(FIRST_SHOP, "mm-per-cutter"),
      () => cutterIn(FIRST_SHOP.cutters, "v60"),
    ]) {
      const mine = take();
      mine.name = "mine";
      expect(take().name).not.toBe("mine");
    }
    const first = startJob(FIRST_SHOP, { outcome: "sign", asset });
    first.stock.material.face[0] = 1;
    first.cuts[0].cutter.diameter = 99;
    const second = startJob(FIRST_SHOP, { outcome: "sign", asset });
    expect([second.stock.material.face[0], second.cuts[0].cutter.diameter]).not.toContain(1);
    expect(second.cuts[0].cutter.diameter).not.toBe(99);
  });
  for (const [what, take] of [
    ["material", () => materialIn(FIRST_SHOP, "moonstone")],
    ["machine", () => machineIn(FIRST_SHOP, "loom")],
    ["dialect", () => dialectIn(FIRST_SHOP, "runes")],
    ["cutter", () => cutterIn(FIRST_SHOP.cutters, "scythe")],
  ] as const)
    it(`a ${what} that it does not know is refused with those that it knows`, () =>
      expect(take).toThrow(new RegExp(`^No ${what} "\\w+".*Known: `)));
  it("an empty rack says how to describe a cutter instead", () =>
    expect(() => cutterIn([], "v60")).toThrow(/Describe one, such as flat:3/));
});

describe("a workshop that has put aside what outcomes usually take", () => {
  it("begins them all the same, on the machine and in the material that it has", () => {
    const own: Shop = {
      ...FIRST_SHOP,
      machines: FIRST_SHOP.machines.filter((m) => m.id === "sheet-router"),
      materials: FIRST_SHOP.materials.filter((m) => m.id === "pine"),
    };
    for (const o of OUTCOMES) {
      const job = startJob(own, { outcome: o.id, asset, cutters: usualHelpers(o, own) });
      expect([job.machine.id, job.stock.material.id, job.dialect.id]).toEqual(["sheet-router", "pine", "mm-changer"]);
    }
  });
  it("a machine comes with the dialect that it reads", () => {
    const job = startJob(FIRST_SHOP, { outcome: "plasma", asset });
    expect([job.machine.id, job.dialect.id]).toEqual(["plasma-table", "mm-per-cutter"]);
  });
});

describe("the cutter nearest to a wish", () => {
  it("is of the kind that was asked for, nearest by angle, then by diameter", () => {
    expect(nearestCutter(FIRST_SHOP, { kind: "v", angle: 58 }).angle).toBe(60);
    expect(nearestCutter(FIRST_SHOP, { kind: "v", angle: 25 }).angle).toBe(30);
    expect(nearestCutter(FIRST_SHOP, { kind: "flat", diameter: 2.6 }).diameter).toBe(3);
    expect(nearestCutter(FIRST_SHOP, { kind: "ball" }).kind).toBe("ball");
  });
  it("every outcome begins with a rack of one cutter a kind, and says what is missing from an empty one", () => {
    const kinds = ["flat", "ball", "v", "taper", "drill", "torch"] as const;
    const few: Shop = { ...FIRST_SHOP, cutters: kinds.map((kind) => nearestCutter(FIRST_SHOP, { kind })) };
    const none: Shop = { ...FIRST_SHOP, cutters: [] };
    for (const o of OUTCOMES) {
      const job = startJob(few, { outcome: o.id, asset, cutters: usualHelpers(o, few) });
      for (const c of job.cuts) expect(few.cutters.map((f) => f.id)).toContain(c.cutter.id);
      expect(() => startJob(none, { outcome: o.id, asset })).toThrow(/^The rack has no \w+ cutter/);
    }
  });
});
