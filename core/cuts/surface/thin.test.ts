import { expect, it } from "vitest";
import { seeded } from "../../testing/random.ts";
import { Span } from "../../testing/span.ts";
import { thinAbove } from "./thin.ts";

it("chords lie nowhere below the line, nowhere more than the tolerance above, and are few where it is straight", () => {
  for (let seed = 1; seed <= 200; seed++) {
    const random = seeded(seed);
    const n = 2 + Math.floor(random() * 300);
    const s = Float64Array.from({ length: n }, (_, i) => i * 0.05);
    let level = -1;
    const z = s.map((v, i) => {
      if (random() < 0.05) level = -3 * random();
      return seed % 4 === 0 ? -0.2 * v : level + 0.3 * Math.sin(v * (1 + (seed % 5))) * (i % 2 === 0 ? 1 : 0.999);
    });
    const tolerance = [0.002, 0.01, 0.1][seed % 3];
    const { at, z: out } = thinAbove(s, z, 0, n - 1, tolerance);
    expect([at[0], at[at.length - 1]]).toEqual([0, n - 1]);
    const above = new Span();
    for (let k = 1; k < at.length; k++)
      for (let i = at[k - 1]; i <= at[k]; i++) {
        const share = (s[i] - s[at[k - 1]]) / (s[at[k]] - s[at[k - 1]]);
        const chord = out[k - 1] + share * (out[k] - out[k - 1]);
        above.take(chord - z[i], () => `place ${i}`);
      }
    expect(above.least, `seed ${seed}: ${above.leastAt}`).toBeGreaterThanOrEqual(-1e-9);
    expect(above.most, `seed ${seed}: ${above.mostAt}`).toBeLessThanOrEqual(tolerance + 1e-9);
    if (seed % 4 === 0) expect(at.length).toBe(2);
  }
});
