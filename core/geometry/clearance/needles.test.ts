import { expect, it } from "vitest";
import { seeded, star } from "../../testing/random.ts";
import { insideRegion, regionArea, type Rings, ringsFrom } from "../rings.ts";
import { SegmentGrid } from "../segmentgrid.ts";
import { isSound } from "../sound.ts";
import { clearanceOf, inset } from "./clearance.ts";

/** Nearer to the edge than this, which side of it a place is on is rounding, mm. */
const ON_EDGE = 1e-3;

/** Long edges beside short ones, and needles of ink and of ground: what fits draw of clip-art. */
function spiky(random: () => number): Rings {
  const loop = (cx: number, cy: number, size: number, hole: boolean): [number, number][] => {
    const n = 3 + Math.floor(9 * random());
    const points: [number, number][] = [];
    for (let k = 0; k < n; k++) {
      const a = (2 * Math.PI * (k + 0.6 * random())) / n;
      const r = size * (0.25 + 0.75 * random());
      const [x, y] = [cx + r * Math.cos(a), cy + r * Math.sin(a)];
      if (random() < 0.4) {
        // A needle: out and back again beside its own way.
        const [width, reach] = [10 ** (-1.7 + 1.4 * random()), size * (0.2 + 0.6 * random())];
        const turn = a + 2 * random() - 1 + (random() < 0.5 ? Math.PI : 0);
        const [ux, uy] = [Math.cos(turn), Math.sin(turn)];
        points.push(
          [x + width * uy, y - width * ux],
          [x + reach * ux, y + reach * uy],
          [x - width * uy, y + width * ux],
        );
      } else points.push([x, y]);
    }
    return hole ? points.reverse() : points;
  };
  const outer = loop(50, 50, 45, false);
  const loops = [outer];
  for (let k = Math.floor(4 * random()); k > 0; k--) {
    const hole = loop(35 + 30 * random(), 35 + 30 * random(), 3 + 10 * random(), true);
    if (insideRegion(ringsFrom([outer]), ...hole[0])) loops.push(hole);
  }
  return ringsFrom(loops);
}

/** Says where an axis or an inset is not inside at its distance. */
function checker(region: Rings, seed: number) {
  const grid = new SegmentGrid(region);
  return (x: number, y: number, d: number, what: string, off: number) => {
    const real = grid.distance(x, y, 200);
    const where = `seed ${seed}, ${what}: ${x}, ${y}`;
    if (real > ON_EDGE && !insideRegion(region, x, y)) expect(where).toBe("inside");
    if (Math.abs(real - d) > off) expect(d, where).toBe(real);
  };
}

it("of needles and long edges beside short ones: every node and edge of the axis is inside, at its distance", () => {
  let tried = 0;
  for (let seed = 1; tried < 150; seed++) {
    const region = spiky(seeded(seed));
    if (!isSound(region) || !(regionArea(region) > 1)) continue;
    tried++;
    const check = checker(region, seed);
    const { x, y, d, a, b } = clearanceOf(region).axis;
    for (let i = 0; i < x.length; i++) check(x[i], y[i], d[i], `node ${i}`, 0.001);
    for (let e = 0; e < a.length; e++) {
      const [i, j] = [a[e], b[e]];
      const length = Math.hypot(x[i] - x[j], y[i] - y[j]);
      check((x[i] + x[j]) / 2, (y[i] + y[j]) / 2, (d[i] + d[j]) / 2, `edge ${e}`, 0.01 + 0.1 * length);
    }
  }
});

it("between thin needles of what is not ground, and stars: insets keep their distance and stay inside", () => {
  let tried = 0;
  for (let seed = 1; tried < 80; seed++) {
    const random = seeded(seed);
    const holes: [number, number][][] = [];
    for (let k = 0; k < 3; k++) {
      const [cx, cy, turn] = [12 + 16 * random(), 12 + 16 * random(), 2 * Math.PI * random()];
      const [length, width] = [3 + 9 * random(), 10 ** (-3 + 2.6 * random())];
      const at = (u: number, v: number): [number, number] => [
        cx + u * Math.cos(turn) - v * Math.sin(turn),
        cy + u * Math.sin(turn) + v * Math.cos(turn),
      ];
      holes.push([at(0, 0), at(length, 0), at(length * (0.9 + 0.1 * random()), width)].reverse());
      holes.push(star(random, 5 + Math.floor(5 * random()), 1, 4, 8 + 24 * random(), 8 + 24 * random()).reverse());
    }
    const region = ringsFrom([
      [
        [0, 0],
        [40, 0],
        [40, 40],
        [0, 40],
      ],
      ...holes,
    ]);
    if (!isSound(region)) continue;
    tried++;
    const check = checker(region, seed);
    const c = clearanceOf(region);
    for (let rho = 0.1; rho < 5; rho += 0.23) {
      const { rings } = inset(c, rho);
      for (let i = 0; i < rings.xy.length; i += 2) check(rings.xy[i], rings.xy[i + 1], rho, `${rho} mm in`, 0.006);
    }
  }
});

it("round a long needle of ground, one side in one line and the other in many: insets keep their distance", () => {
  for (let seed = 1; seed <= 80; seed++) {
    const random = seeded(seed);
    const [length, open] = [20 + 15 * random(), 0.3 + 3 * random()];
    const n = 3 + Math.floor(25 * random());
    // From the tip up one side, and back down the other a little bent.
    const side = Array.from({ length: n }, (_, k): [number, number] => {
      const f = (k + 1) / n;
      return [50 + open * f ** (1 + 0.3 * random()), 30 + length * f];
    });
    const hole: [number, number][] = [[50, 30], ...side, [50 - 2 * random(), 30 + length * (1 + 0.1 * random())]];
    const region = ringsFrom([
      [
        [20, 10],
        [80, 10],
        [80, 80],
        [20, 80],
      ],
      hole.reverse(),
    ]);
    if (!isSound(region)) continue;
    const check = checker(region, seed);
    const c = clearanceOf(region);
    let before = regionArea(region);
    for (const rho of [0.05, 0.1, 0.2, 0.25, 0.3, 0.5, 0.8, 1.5, 3]) {
      const { rings } = inset(c, rho);
      for (let i = 0; i < rings.xy.length; i += 2) check(rings.xy[i], rings.xy[i + 1], rho, `${rho} mm in`, 0.006);
      expect(regionArea(rings), `seed ${seed}, ${rho} mm in`).toBeLessThan(before);
      before = regionArea(rings);
    }
  }
});
