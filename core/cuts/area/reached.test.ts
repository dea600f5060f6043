import { expect, it } from "vitest";
import { clearanceOf, inset } from "../../geometry/clearance/clearance.ts";
import { mended } from "../../geometry/mend.ts";
import { ringsFrom } from "../../geometry/rings.ts";
import { blob, circle, distanceToRings, seeded } from "../../testing/random.ts";
import { reachedBy } from "./reached.ts";

it("what cutters opened: yes and no as their centres' region says, and so far as is told the answer holds", () => {
  for (let seed = 1; seed <= 30; seed++) {
    const random = seeded(seed);
    const c = clearanceOf(
      mended(ringsFrom([blob(random, 90, 30, 50, 50, 0.5), circle(40 + 20 * random(), 50, 4, 40, true)])),
    );
    const cutters = [
      { radius: 5, from: 5 + random() },
      { radius: 2, from: 2 + random() },
    ].slice(Math.round(random()));
    const by = 0.2 + 1.5 * random();
    const reached = reachedBy(c, cutters)!;
    const centres = cutters.map((q) => ({ ...q, rings: inset(c, q.from).rings }));
    /** Places at clearance d are all on one side of where the centres may go, so that only their edges count. */
    const isIn = (x: number, y: number, d: number) =>
      centres.some((q) => q.radius > by && (d >= q.from || distanceToRings(q.rings, x, y) < q.radius - by));
    let yes = 0;
    for (let k = 0; k < 200; k++) {
      const [x, y, d] = [20 + 60 * random(), 20 + 60 * random(), 5 * random()];
      const leeway = reached(x, y, d, by);
      expect(leeway > 0, `seed ${seed}, ${x}, ${y}`).toBe(isIn(x, y, d));
      if (leeway > 0) yes++;
      const far = Math.min(100, Math.abs(leeway)) * 0.999 * random();
      const a = 2 * Math.PI * random();
      const [u, v] = [x + far * Math.cos(a), y + far * Math.sin(a)];
      expect(isIn(u, v, d), `seed ${seed}, ${x}, ${y}, ${far} mm on`).toBe(leeway > 0);
    }
    expect(yes, `seed ${seed}`).toBeGreaterThan(5);
    expect(yes, `seed ${seed}`).toBeLessThan(200);
  }
});
