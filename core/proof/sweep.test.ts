import { describe, expect, it } from "vitest";
import { profileOf } from "../cutters/profile.ts";
import { seeded } from "../testing/random.ts";
import { ToolpathWriter } from "../toolpath/toolpath.ts";
import { newSurface } from "./surface.ts";
import { sweepLine } from "./swaths.ts";
import { sweep } from "./sweep.ts";
import { cutterOf } from "../testing/shop.ts";
import { Span } from "../testing/span.ts";

/** The lowest a cutter passes over a point, found by trying very many places along the move. */
function stamped(p: ReturnType<typeof profileOf>, m: number[], x: number, y: number): number {
  let best = 0;
  for (let k = 0; k <= 2000; k++) {
    const t = k / 2000;
    const dx = x - m[0] - t * (m[3] - m[0]);
    const dy = y - m[1] - t * (m[4] - m[1]);
    best = Math.min(best, m[2] + t * (m[5] - m[2]) + p.h(Math.sqrt(dx * dx + dy * dy)));
  }
  return best;
}

describe("sweeping a straight move", () => {
  for (const spec of [
    "flat:5",
    "ball:6",
    "v:60:10",
    "v:90:10:1.5",
    "taper:0.8:7:6",
    "v:60:3",
    "drill:4",
    "form:0/0:0.6/0.1:2/1:3/4",
    "form:0.5/0:2/0.4:2.5/3:4/3.2:5/6",
  ])
    it(`${spec}: equals the lowest of thousands of stamps, to a tenth of a cell`, () => {
      const p = profileOf(cutterOf(spec));
      const random = seeded(spec.length * 31);
      for (let n = 0; n < 8; n++) {
        const steep = n % 4;
        const m = [
          4 + 8 * random(),
          4 + 8 * random(),
          -3 * random(),
          4 + 8 * random(),
          4 + 8 * random(),
          -3 * random(),
        ];
        if (steep === 0) m[5] = m[2];
        if (steep === 3) [m[3], m[4]] = [m[0] + 0.4 * random(), m[1]];
        const s = newSurface(16, 16, 0.5);
        sweepLine(s, p, 1, m[0], m[1], m[2], m[3], m[4], m[5]);
        for (let j = 0; j < s.height; j++)
          for (let i = 0; i < s.width; i++) {
            const [x, y] = [(i + 0.5) * 0.5, (j + 0.5) * 0.5];
            const want = stamped(p, m, x, y);
            const got = s.z[j * s.width + i];
            // On a flat's rim stamps miss by their spacing: allow a cell there, and only there.
            if (Math.abs(got - want) > 0.006)
              expect(
                Math.abs(stamped(p, m, x + 0.004, y) - stamped(p, m, x - 0.004, y)) +
                  Math.abs(stamped(p, m, x, y + 0.004) - stamped(p, m, x, y - 0.004)),
                `${spec} move ${m} at ${x},${y}: ${got} for ${want}`,
              ).toBeGreaterThan(0.05);
          }
      }
    });
});

it("sweeps an arc as a groove of even depth", () => {
  const w = new ToolpathWriter(1000, 300, 5000);
  w.above(30, 20);
  w.plunge(-2);
  w.arc(true, 20, 20, 10, 20, -2);
  const s = newSurface(40, 40, 0.1);
  sweep(s, w.take(), profileOf(cutterOf("v:90:12")), 3);
  for (let a = 0.2; a < Math.PI - 0.2; a += 0.1) {
    const [x, y] = [20 + 10 * Math.cos(a), 20 + 10 * Math.sin(a)];
    const at = Math.floor(y / 0.1) * s.width + Math.floor(x / 0.1);
    expect(s.z[at]).toBeLessThan(-1.9);
    expect(s.by[at]).toBe(3);
  }
  expect(s.z[Math.floor(5 / 0.1) * s.width + 200]).toBe(0);
});

it("sweeps random level arcs exactly: every cell by its distance from the arc", () => {
  const random = seeded(77);
  for (const spec of ["flat:4", "v:60:8", "ball:5"])
    for (let n = 0; n < 12; n++) {
      const p = profileOf(cutterOf(spec));
      const [cx, cy, r] = [14 + 12 * random(), 14 + 12 * random(), 0.5 + 9 * random()];
      const [a0, sweepAngle] = [2 * Math.PI * random(), (random() < 0.5 ? -1 : 1) * (0.2 + 5.5 * random())];
      const z = -0.4 - 2 * random();
      const w = new ToolpathWriter(1000, 300, 5000);
      w.above(cx + r * Math.cos(a0), cy + r * Math.sin(a0));
      w.plunge(z);
      w.arc(sweepAngle > 0, cx, cy, cx + r * Math.cos(a0 + sweepAngle), cy + r * Math.sin(a0 + sweepAngle), z);
      const s = newSurface(40, 40, 0.5);
      sweep(s, w.take(), p, 1);
      const along = Array.from({ length: 801 }, (_, k) => a0 + (sweepAngle * k) / 800).flatMap((a) => [
        cx + r * Math.cos(a),
        cy + r * Math.sin(a),
      ]);
      const off = new Span();
      for (let j = 0; j < s.height; j += 2)
        for (let i = 0; i < s.width; i += 2) {
          let d = Infinity;
          for (let k = 0; k <= 800; k++)
            d = Math.min(d, ((i + 0.5) * 0.5 - along[2 * k]) ** 2 + ((j + 0.5) * 0.5 - along[2 * k + 1]) ** 2);
          d = Math.sqrt(d);
          // Within stamp spacing of a flat's rim either answer is right.
          if (Math.abs(d - p.radius) < 0.03) continue;
          off.take(Math.abs(s.z[j * s.width + i] - Math.min(0, z + p.h(d))), () => `cell ${i}, ${j}`);
        }
      expect(off.most, `${spec} ${n}: ${off.mostAt}`).toBeLessThan(0.05);
    }
});
