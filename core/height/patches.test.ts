import { describe, expect, it } from "vitest";
import { profileOf } from "../cutters/profile.ts";
import { seeded } from "../testing/random.ts";
import { cutterOf } from "../testing/shop.ts";
import { Span } from "../testing/span.ts";
import { between } from "./field.ts";
import { Hanging } from "./hanging.ts";
import { Patches } from "./patches.ts";

/** Parts of a cell between which the patches are looked at. */
const FINER = 64;

const FORM = "form:0/0:0.6/0.1:2/1:3/4";

describe("how high the patches about a sample hold a cutter", () => {
  for (const spec of ["ball:3", "v:60:6", "v:30:4:0.3", "taper:0.5:5:3", "taper:0.25:5:3", "flat:4", "drill:6", FORM])
    it(`${spec}: as high as their highest place does, however steep and twisted they are`, () => {
      const p = profileOf(cutterOf(spec));
      const [off, inside, left] = [new Span(), new Span(), new Span()];
      for (let seed = 1; seed <= 160; seed++) {
        const random = seeded(seed);
        const cell = [0.05, 0.12, 0.2][seed % 3];
        const steep = [0.02, 0.1, 0.4, 1.5][seed % 4];
        const z = Float32Array.from({ length: 9 }, () => -steep * random());
        const t = { x0: 0, y0: 0, cell, width: 3, height: 3, z };
        // An axis anywhere from over the sample to where the patches lie across the cutter's rim and beyond it.
        const [away, turn] = [random() * (p.radius / cell + 1), 2 * Math.PI * random()];
        const [u, v] = [1 + away * Math.cos(turn), 1 + away * Math.sin(turn)];
        let best = -Infinity;
        for (let j = 0; j <= 2 * FINER; j++)
          for (let i = 0; i <= 2 * FINER; i++) {
            const r = Math.hypot(i / FINER - u, j / FINER - v) * cell;
            best = Math.max(best, between(t, i / FINER, j / FINER) - p.h(r));
          }
        const patches = new Patches(t, p, new Hanging(p, t.cell, true));
        patches.begin(u, v);
        const found = patches.heldAbout(4, -Infinity);
        if (best === -Infinity) continue;
        off.take(found - best, () => `seed ${seed}`);
        if (away < p.radius / cell - 1.5) inside.take(found - best, () => `seed ${seed}`);
        // A patch that is left out because it cannot hold the cutter higher than known could not.
        for (const less of [0.0001, 0.01]) {
          patches.begin(u, v);
          left.take(patches.heldAbout(4, found - less) - found, () => `seed ${seed}, ${less} less known`);
        }
      }
      expect(off.least, off.leastAt).toBeGreaterThan(-0.002);
      // Between places looked at the surface is higher by no more than half a part of the steepest: 1.5 mm in a cell.
      expect(inside.most, inside.mostAt).toBeLessThan(1.5 / FINER);
      expect(left.least, left.leastAt).toBe(0);
      expect(left.most, left.mostAt).toBe(0);
    });

  it("no less than what is known", () => {
    const t = { x0: 0, y0: 0, cell: 0.1, width: 3, height: 3, z: new Float32Array(9).fill(-2) };
    const p = profileOf(cutterOf("ball:2"));
    const patches = new Patches(t, p, new Hanging(p, t.cell, true));
    patches.begin(1, 1);
    expect(patches.heldAbout(4, -1)).toBe(-1);
    patches.begin(1, 1);
    expect(patches.heldAbout(4, -3)).toBeCloseTo(-2, 6);
  });

  it("about neighbours in turn, each patch once, as about each by itself", () => {
    const p = profileOf(cutterOf("taper:0.25:5:4"));
    for (let seed = 1; seed <= 50; seed++) {
      const random = seeded(seed);
      const z = Float32Array.from({ length: 25 }, () => -0.5 * random());
      const t = { x0: 0, y0: 0, cell: 0.1, width: 5, height: 5, z };
      const [u, v] = [4 * random(), 4 * random()];
      const samples = Array.from({ length: 4 }, () => Math.floor(25 * random()));
      const about = (each: (patches: Patches) => void) => {
        const patches = new Patches(t, p, new Hanging(p, t.cell, true));
        patches.begin(u, v);
        let known = -Infinity;
        for (const sample of samples) {
          known = patches.heldAbout(sample, known);
          each(patches);
        }
        return known;
      };
      expect(about(() => {})).toBe(about((patches) => patches.begin(u, v)));
    }
  });
});
