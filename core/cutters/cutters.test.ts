import { describe, expect, it } from "vitest";
import { checkCutter, describeCutter, profileOf, sameCutter } from "./profile.ts";
import { parseCutter } from "./rack.ts";
import { SHOP, cutterNamed } from "../testing/shop.ts";

describe("cutter profiles", () => {
  for (const spec of [
    "ball:6",
    "v:60:12",
    "v:90:10:1.5",
    "v:20:3:0.1",
    "taper:0.5:5:6",
    "taper:1.5:12:8",
    "form:0/0:0.6/0.1:2/1:3/4",
    "form:0.5/0:2/0.4:2.5/3:4/3.2:5/6",
    "drill:5",
    "drill:3:90",
  ])
    it(`${spec}: h rises from the tip, and r is its inverse`, () => {
      const c = parseCutter(spec);
      const p = profileOf(c);
      let last = -1;
      for (let k = 0; k <= 200; k++) {
        const r = (p.radius * k) / 200;
        const h = p.h(r);
        expect(h).toBeGreaterThanOrEqual(last - 1e-12);
        last = h;
        if (r > p.flat + 1e-9) expect(p.r(h)).toBeCloseTo(r, 6);
      }
      expect(p.h(0)).toBe(0);
      expect(p.h(p.radius * 1.001)).toBe(Infinity);
      expect(p.r(1000)).toBe(p.radius);
    });

  it("are what geometry says: a V's flank, a ball's round, a tapered ball smooth where both meet", () => {
    expect(profileOf(parseCutter("v:60:12")).h(3)).toBeCloseTo(3 / Math.tan(Math.PI / 6), 12);
    expect(profileOf(parseCutter("v:90:12:2")).h(3)).toBeCloseTo(2, 12);
    expect(profileOf(parseCutter("ball:6")).h(3 * Math.sin(1))).toBeCloseTo(3 * (1 - Math.cos(1)), 12);
    expect(profileOf(parseCutter("flat:6")).h(3)).toBe(0);
    const t = profileOf(parseCutter("taper:1:10:8"));
    const at = t.coneFrom;
    const slope = (r: number) => (t.h(r + 1e-6) - t.h(r - 1e-6)) / 2e-6;
    expect(t.h(at + 1e-9)).toBeCloseTo(t.h(at - 1e-9), 6);
    expect(slope(at - 1e-3) / slope(at + 1e-3)).toBeCloseTo(1, 1);
  });

  it("one given by points is straight between them", () => {
    const p = profileOf(parseCutter("form:1/0:2/0.5:4/6"));
    expect([0.5, 1, 1.5, 2, 3, 4].map((r) => p.h(r))).toEqual([0, 0, 0.25, 0.5, 3.25, 6]);
    expect([p.radius, p.flat, p.height]).toEqual([4, 1, 6]);
    // The points of a V give what the V gives.
    const [v, same] = ["v:60:12", `form:0/0:6/${6 / Math.tan(Math.PI / 6)}`].map((c) => profileOf(parseCutter(c)));
    for (let r = 0; r <= 6; r += 0.25) expect(same.h(r)).toBeCloseTo(v.h(r), 9);
  });
  it("a torch is a beam as wide as its kerf", () => {
    const p = profileOf(parseCutter("torch:1.5"));
    expect([p.beam, p.radius, p.h(0.7)]).toEqual([true, 0.75, 0]);
  });
});

describe("cutters by their numbers", () => {
  it("lengths take units, angles a degree sign", () => {
    expect(parseCutter("flat:1/4in")).toMatchObject({ kind: "flat", diameter: 6.35 });
    expect(parseCutter("v:60°:12:0.2mm")).toMatchObject({ kind: "v", angle: 60, diameter: 12, tip: 0.2 });
    // By what a rule shows: as far from tip to shoulder as a 60° cone of its width is high.
    const measured = parseCutter(`v:${(5.9 / Math.tan(Math.PI / 6)).toFixed(4)}mm:12:0.2`);
    expect(measured.angle).toBeCloseTo(60, 3);
    expect(measured.fluteLength).toBeCloseTo(parseCutter("v:60:12:0.2").fluteLength, 3);
    expect(parseCutter("drill:4")).toMatchObject({ kind: "drill", angle: 118 });
    expect(parseCutter("v60", SHOP.cutters)).toEqual(cutterNamed("v60"));
  });
  for (const spec of [
    "v:0:12",
    "v:0mm:12",
    "v:180:12",
    "v:60:0",
    "v:60:12:12",
    "flat:-3",
    "flat:",
    "flat:999",
    "ball:abc",
    "taper:4:5:6",
    "taper:0.5:90:6",
    "form:0/0",
    "form:0/0:3",
    "form:0/0:3/1:2/4",
    "form:0/0:2/3:3/1",
    "form:0/1:3/2",
    "form:0/0:3/0",
    "lathe:3",
    "nonesuch",
    "v:sharp:12",
  ])
    it(`refuses ${spec} with a sentence that says what is wrong`, () =>
      expect(() => parseCutter(spec)).toThrow(/^[A-Z"].{15,}\.$/));
  it("every cutter in the rack is sound, has a name of its own and a short description", () => {
    for (const c of SHOP.cutters) {
      expect(() => checkCutter(c)).not.toThrow();
      expect(describeCutter(c).length).toBeLessThan(24);
      expect(c.fluteLength).toBeGreaterThan(0);
    }
    expect(new Set(SHOP.cutters.map((c) => c.id)).size).toBe(SHOP.cutters.length);
    expect(new Set(SHOP.cutters.map((c) => c.name)).size).toBe(SHOP.cutters.length);
  });
  it("are the same tool when their numbers are, not their names", () => {
    expect(sameCutter(parseCutter("v:60:12"), parseCutter("v:60:12:0"))).toBe(true);
    expect(sameCutter(parseCutter("flat:3"), parseCutter("ball:3"))).toBe(false);
  });
});
