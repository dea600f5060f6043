import { describe, expect, it } from "vitest";
import { blob, circle, distanceToRings, seeded, star } from "../testing/random.ts";
import { ringsFrom } from "../geometry/rings.ts";
import { cutAlong, PATH_TOLERANCE, rampDown, unroll } from "./loops.ts";
import { ARC_CCW, ARC_CW, figures, moveLength, RAPID, sweepOf, type Toolpath, ToolpathWriter } from "./toolpath.ts";
import { between, openRuns } from "./stretches.ts";

/** Points along every cutting move, arcs followed on their circles. */
function along(t: Toolpath, steps = 24): [number, number, number][] {
  const out: [number, number, number][] = [];
  for (let i = 1; i < t.kind.length; i++) {
    if (t.kind[i] === RAPID) continue;
    const arc = t.kind[i] === ARC_CW || t.kind[i] === ARC_CCW;
    const r = Math.hypot(t.x[i - 1] - t.cx[i], t.y[i - 1] - t.cy[i]);
    const a0 = Math.atan2(t.y[i - 1] - t.cy[i], t.x[i - 1] - t.cx[i]);
    for (let q = 0; q <= steps; q++) {
      const f = q / steps;
      const z = t.z[i - 1] + f * (t.z[i] - t.z[i - 1]);
      const a = a0 + f * (arc ? sweepOf(t, i) : 0);
      out.push(
        arc
          ? [t.cx[i] + r * Math.cos(a), t.cy[i] + r * Math.sin(a), z]
          : [t.x[i - 1] + f * (t.x[i] - t.x[i - 1]), t.y[i - 1] + f * (t.y[i] - t.y[i - 1]), z],
      );
    }
  }
  return out;
}

describe("cutting along a loop", () => {
  for (const [name, loop, most] of [
    ["circle", circle(30, 30, 20, 720), 12],
    ["wavy blob", blob(seeded(2), 900, 18, 30, 30), 320],
    ["star", star(seeded(3), 17, 8, 22, 30, 30), 17],
  ] as const)
    it(`${name}: few lines and arcs, none farther from it than the tolerance`, () => {
      const rings = ringsFrom([loop]);
      const l = unroll(rings.xy, 0, loop.length, 0, false);
      const w = new ToolpathWriter(1000, 300, 5000);
      w.above(l.x[0], l.y[0]);
      w.plunge(-1);
      cutAlong(w, l.x, l.y, 0, l.x.length - 1, -1);
      const t = w.take();
      for (const [x, y, z] of along(t)) {
        // Points are held to the tolerance; between two of them an arc leaves their chord a little more.
        expect(distanceToRings(rings, x, y)).toBeLessThan(1.3 * PATH_TOLERANCE);
        expect(z).toBeLessThanOrEqual(0.5);
      }
      expect(t.kind.filter((k) => k !== RAPID).length - 1).toBeLessThanOrEqual(most);
      const length = loop.reduce(
        (s, p, i) => s + Math.hypot(p[0] - loop[(i + 1) % loop.length][0], p[1] - loop[(i + 1) % loop.length][1]),
        0,
      );
      let cut = 0;
      for (let i = 1; i < t.kind.length; i++) if (t.kind[i] !== RAPID && t.z[i - 1] === -1) cut += moveLength(t, i);
      expect(cut / length).toBeCloseTo(1, 3);
    });

  it("sinks along it no steeper than asked, round and round, to the depth", () => {
    const loop = circle(20, 20, 3, 90);
    const l = unroll(ringsFrom([loop]).xy, 0, loop.length, 0, false);
    const w = new ToolpathWriter(1000, 300, 5000);
    w.above(l.x[0], l.y[0]);
    w.to(l.x[0], l.y[0], 0);
    const at = rampDown(w, l, 0, -4, 0.05);
    expect([w.x, w.y, w.z]).toEqual([l.x[at], l.y[at], -4]);
    const t = w.take();
    let down = 0;
    for (let i = 1; i < t.kind.length; i++) {
      if (t.kind[i] === RAPID || t.z[i] >= 0) continue;
      const fall = t.z[i - 1] - t.z[i];
      const length = moveLength(t, i);
      expect(fall).toBeGreaterThanOrEqual(-1e-9);
      expect(fall).toBeLessThanOrEqual(0.0505 * Math.sqrt(length * length - fall * fall) + 0.004);
      if (fall > 0) down++;
    }
    for (const [x, y] of along(t)) expect(Math.abs(Math.hypot(x - 20, y - 20) - 3)).toBeLessThan(0.01);
    // Four turns and a quarter, in arcs of at most three quarters of a turn.
    expect(down).toBeLessThanOrEqual(10);
    expect(figures(t).cutLength).toBeGreaterThan(4 / 0.05);
  });
});

it("a helix that sinks steeper than the plunge rate allows slows down", () => {
  const w = new ToolpathWriter(1000, 100, 5000);
  w.above(2, 0);
  w.to(2, 0, 0);
  w.arc(true, 0, 0, -2, 0, -2);
  w.arc(true, 0, 0, 2, 0, -2);
  const t = w.take();
  const [down, level] = [...t.kind.keys()].filter((i) => t.kind[i] === ARC_CCW);
  expect((t.feed[down] * 2) / moveLength(t, down)).toBeCloseTo(100, 6);
  expect(t.feed[level]).toBe(1000);
});

describe("stretches of a ring", () => {
  it("where nothing is left out: the whole ring, closed", () => {
    const r = ringsFrom([circle(0, 0, 10, 50)]);
    const [run] = openRuns(r.xy, 0, 50, null);
    expect(run.x.length).toBeGreaterThanOrEqual(50);
    expect([run.x[0], run.y[0]]).toEqual([run.x[run.x.length - 1], run.y[run.y.length - 1]]);
  });
  it("cover all that is not left out, and reach into what is by a hundredth at most", () => {
    const random = seeded(77);
    for (let n = 0; n < 30; n++) {
      const [cx, cy, cr] = [20 * random() - 10, 20 * random() - 10, 3 + 6 * random()];
      const skip = (x: number, y: number) => cr - Math.hypot(x - cx, y - cy);
      const r = ringsFrom([circle(0, 0, 10, 60)]);
      const runs = openRuns(r.xy, 0, 60, skip);
      for (const run of runs) {
        for (let i = 0; i < run.x.length; i++)
          expect(Math.hypot(run.x[i] - cx, run.y[i] - cy)).toBeGreaterThan(cr - 0.012);
      }
      // Every point of the ring outside the skipped disc, but for slivers between looks, lies on some run.
      const on = (x: number, y: number) =>
        runs.some((run) =>
          run.x.some((_, i) => i > 0 && distanceOnto(x, y, run.x[i - 1], run.y[i - 1], run.x[i], run.y[i]) < 1e-6),
        );
      for (let k = 0; k < 60; k++) {
        const f = random();
        const [i, j] = [k, (k + 1) % 60];
        const [x, y] = [
          r.xy[2 * i] + f * (r.xy[2 * j] - r.xy[2 * i]),
          r.xy[2 * i + 1] + f * (r.xy[2 * j + 1] - r.xy[2 * i + 1]),
        ];
        if (Math.hypot(x - cx, y - cy) > cr + 0.2) expect(on(x, y)).toBe(true);
      }
    }
  });
});

function distanceOnto(x: number, y: number, ax: number, ay: number, bx: number, by: number): number {
  const [dx, dy] = [bx - ax, by - ay];
  const t = Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / (dx * dx + dy * dy || 1)));
  return Math.hypot(x - ax - t * dx, y - ay - t * dy);
}

it("parts of a trail between two depths meet exactly at them, and together are the trail", () => {
  const random = seeded(4);
  const n = 40;
  const t = {
    x: Float64Array.from({ length: n }, (_, i) => i),
    y: Float64Array.from({ length: n }, () => random()),
    z: Float64Array.from({ length: n }, () => -5 * random()),
  };
  const levels = [Infinity, -1, -2.5, -4, -5];
  for (let k = 1; k < levels.length; k++) {
    const floor = levels[k];
    for (const part of between(t, levels[k - 1] === Infinity ? 0 : levels[k - 1], floor)) {
      expect(Math.min(...part.z)).toBeGreaterThanOrEqual(floor);
      for (let i = 0; i < part.x.length; i++) {
        const a = Math.min(n - 2, Math.floor(part.x[i]));
        const f = part.x[i] - a;
        const own = t.z[a] + f * (t.z[a + 1] - t.z[a]);
        expect(part.z[i]).toBeCloseTo(Math.max(floor, own), 9);
      }
    }
  }
});
