import { describe, expect, it } from "vitest";
import { feeds } from "./feeds.ts";

const say = (...args: string[]): string[] => {
  const said: string[] = [];
  expect(feeds(args, (l) => said.push(l))).toBe(0);
  return said;
};
const numbers = (...args: string[]) => JSON.parse(say(...args, "--json")[0]);

describe("oaken feeds", () => {
  it("says each number with its unit and its reason", () => {
    const said = say("--cutter", "flat6", "--material", "oak");
    expect(said.map((l) => l.split(":")[0])).toEqual(["feed", "plunge", "spindle", "stepdown", "depth", "width"]);
    for (const l of said) expect(l).toMatch(/^[a-z ]+: [\d.]+ (mm\/min|\/min|mm) — \S/);
  });
  it("feed is spindle speed × flutes × chip, and power holds it where the cut is heavy", () => {
    const light = numbers("--cutter", "flat:6", "--material", "brass", "--depth", "0.2", "--width", "3");
    const [, chip] = /^([\d.]+) mm chip/.exec(light.feed.reason)!;
    // Half the cutter sideways: no thinning of the chip. Feeds are told to ten mm/min.
    expect(Math.abs(light.feed.value - light.spindle.value * 2 * Number(chip))).toBeLessThanOrEqual(6);
    const heavy = numbers("--cutter", "flat:6", "--material", "brass", "--depth", "20", "--width", "6");
    expect(heavy.feed.value).toBeLessThan(light.feed.value);
    expect(heavy.feed.reason).toMatch(/held by \d+ W/);
  });
  it("of a torch the sheet's thickness counts: thicker is slower and takes longer to pierce", () => {
    const thin = numbers("--cutter", "torch:1.5", "--material", "steel", "--depth", "2");
    const thick = numbers("--cutter", "torch:1.5", "--material", "steel", "--depth", "8");
    expect(thick.feed.value).toBeLessThan(thin.feed.value);
    expect(thick.pierceDelay.value).toBeGreaterThan(thin.pierceDelay.value);
  });
  for (const [what, args, sentence] of [
    ["nothing", [], /^Name a cutter and a material, with --cutter/],
    ["an unknown material", ["--cutter", "flat6", "--material", "moonstone"], /^No material "moonstone"\. Known: /],
    ["an unknown cutter", ["--cutter", "scythe", "--material", "oak"], /^No cutter "scythe" in the rack/],
    ["an unknown machine", ["--cutter", "flat6", "--material", "oak", "--machine", "loom"], /^No machine "loom"/],
    ["no depth", ["--cutter", "flat6", "--material", "oak", "--depth", "0"], /^--depth 0: give a length above 0/],
    ["a cutter of no width", ["--cutter", "flat:0", "--material", "oak"], /diameter must be more than 0/],
    ["an option of another command", ["--cutter", "flat6", "--as", "sign"], /^Unknown option '--as'/],
  ] as [string, string[], RegExp][])
    it(`${what} is refused with a sentence`, () => expect(() => feeds(args, () => {})).toThrow(sentence));
});
