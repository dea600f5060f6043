import { describe, expect, it } from "vitest";
import { ROUTER as M } from "../testing/shop.ts";
import { seeded } from "../testing/random.ts";
import { moveLength, RAPID, type Toolpath, ToolpathWriter } from "./toolpath.ts";
import { moveSeconds } from "./time.ts";

/** The same model stepped finely: limits of speed along the way, then forward and backward passes over tiny steps. */
function stepped(t: Toolpath): number {
  const speeds: number[] = [];
  const accel: number[] = [];
  const step = 0.002;
  const dir = (i: number) => {
    const d = [t.x[i] - t.x[i - 1], t.y[i] - t.y[i - 1], t.z[i] - t.z[i - 1]];
    const l = Math.hypot(...d) || 1;
    return d.map((v) => v / l);
  };
  let before = -1;
  for (let i = 1; i < t.kind.length; i++) {
    const len = moveLength(t, i);
    if (len < 1e-9) continue;
    const u = dir(i);
    const flat = Math.hypot(u[0], u[1]);
    const a = Math.min(
      flat > 1e-6 ? M.acceleration / flat : Infinity,
      Math.abs(u[2]) > 1e-6 ? M.accelerationZ / Math.abs(u[2]) : Infinity,
    );
    const most = Math.min(
      flat > 1e-6 ? M.rapid / flat : Infinity,
      Math.abs(u[2]) > 1e-6 ? M.rapidZ / Math.abs(u[2]) : Infinity,
    );
    const v = (t.kind[i] === RAPID ? most : Math.min(most, t.feed[i])) / 60;
    if (before > 0) {
      const p = dir(before);
      const cos = -(p[0] * u[0] + p[1] * u[1] + p[2] * u[2]);
      const half = Math.sqrt(0.5 * (1 - Math.min(1, cos)));
      const corner =
        half > 0.999999 ? Infinity : Math.sqrt((Math.min(a, accel[accel.length - 1]) * M.junction * half) / (1 - half));
      speeds[speeds.length - 1] = Math.min(speeds[speeds.length - 1], corner, v);
    }
    const n = Math.max(1, Math.round(len / step));
    for (let k = 0; k < n; k++) {
      speeds.push(v);
      accel.push(a);
    }
    before = i;
  }
  speeds.unshift(0);
  speeds[speeds.length - 1] = 0;
  for (let i = 1; i < speeds.length; i++)
    speeds[i] = Math.min(speeds[i], Math.sqrt(speeds[i - 1] ** 2 + 2 * accel[i - 1] * step));
  for (let i = speeds.length - 2; i >= 0; i--)
    speeds[i] = Math.min(speeds[i], Math.sqrt(speeds[i + 1] ** 2 + 2 * accel[i] * step));
  let s = 0;
  for (let i = 1; i < speeds.length; i++) s += (2 * step) / (speeds[i] + speeds[i - 1]);
  return s;
}

describe("machining time", () => {
  it("of one long move is a trapezoid", () => {
    const w = new ToolpathWriter(1200, 300, M.rapid);
    w.above(0, 0);
    w.plunge(-1);
    w.to(100, 0, -1);
    const s = moveSeconds(w.take(), M);
    // The square corners out of the plunge and into the lift keep √(a·δ·sin 45°/(1 − sin 45°)); between them
    // up to 20 mm/s.
    const v0 = Math.sqrt((M.accelerationZ * M.junction * Math.SQRT1_2) / (1 - Math.SQRT1_2));
    expect(s[3]).toBeCloseTo((2 * (20 - v0)) / 400 + (100 - (400 - v0 * v0) / 400) / 20, 6);
  });

  it("agrees with a finely stepped integration within 3 %, on random walks of short and long moves", () => {
    for (let seed = 1; seed <= 6; seed++) {
      const random = seeded(seed);
      const w = new ToolpathWriter(2400, 600, M.rapid);
      w.above(50, 50);
      w.plunge(-2);
      let a = 0;
      for (let i = 0; i < 300; i++) {
        a += (random() - 0.5) * (seed % 2 ? 1 : 3);
        const r = seed < 4 ? 0.2 + 3 * random() : 0.5 + 20 * random();
        w.to(w.x + r * Math.cos(a), w.y + r * Math.sin(a), Math.min(-0.5, w.z + (random() - 0.5) * 0.3));
      }
      const t = w.take();
      let total = 0;
      for (const s of moveSeconds(t, M)) total += s;
      expect(Math.abs(total / stepped(t) - 1), `seed ${seed}`).toBeLessThan(0.03);
    }
  });
});
