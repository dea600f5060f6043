import { describe, expect, it } from "vitest";
import { seeded } from "../testing/random.ts";
import { cutterOf } from "../testing/shop.ts";
import { profileOf } from "./profile.ts";
import { touchAlong } from "./touch.ts";

describe("where a cutter touches a straight edge beside its axis", () => {
  for (const spec of [
    "ball:3",
    "flat:2",
    "v:60:6",
    "v:30:4:0.3",
    "taper:0.5:5:3",
    "taper:1:20:6",
    "v:170:8",
    "form:0/0:0.6/0.1:2/1:3/4",
    "form:0.5/0:2/0.4:2.5/3:4/3.2:5/6",
  ])
    it(`${spec}: nowhere along the edge is it higher above the cutter's line`, () => {
      const p = profileOf(cutterOf(spec));
      const random = seeded(11);
      for (let k = 0; k < 300; k++) {
        const across = random() * p.radius;
        const slope = k % 5 === 0 ? 0 : 10 ** (3 * random() - 2);
        const rim = Math.sqrt(p.radius * p.radius - across * across) * (1 - 1e-12);
        const above = (s: number) => slope * s - p.h(Math.min(p.radius, Math.hypot(s, across)));
        const found = above(Math.min(rim, touchAlong(p, slope, across)));
        const looked = Array.from({ length: 201 }, (_, part) => above(rim * (part / 100 - 1)));
        expect(found, `across ${across}, slope ${slope}`).toBeGreaterThan(Math.max(...looked) - 1e-9);
      }
    });
});
