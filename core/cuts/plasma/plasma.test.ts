import { describe, expect, it } from "vitest";
import { mended } from "../../geometry/mend.ts";
import { insideRegion, ringsFrom, type Rings } from "../../geometry/rings.ts";
import { planOn, proofOf } from "../../testing/cutting.ts";
import { circle, distanceToRings, seeded, star } from "../../testing/random.ts";
import { figures, RAPID, TORCH_OFF, TORCH_ON, type Toolpath } from "../../toolpath/toolpath.ts";

const KERF = 1.6;
const cutter = `torch:${KERF}`;

/** A panel of n × n contours, stars and discs by turns, in no useful order. */
function panel(n: number, side: number): Rings {
  const random = seeded(9);
  const cells = Array.from({ length: n * n }, (_, i) => ({ i, at: random() })).sort((a, b) => a.at - b.at);
  const step = side / n;
  return ringsFrom(
    cells.map(({ i }) =>
      i % 2
        ? star(random, 9, 0.22 * step, 0.36 * step, ((i % n) + 0.5) * step, (Math.floor(i / n) + 0.5) * step)
        : circle(((i % n) + 0.5) * step, (Math.floor(i / n) + 0.5) * step, 0.33 * step, 60),
    ),
  );
}

const pierces = (t: Toolpath): { x: number; y: number; i: number }[] =>
  [...t.kind].flatMap((k, i) => (k === TORCH_ON ? [{ x: t.x[i], y: t.y[i], i }] : []));

describe("plasma against its definition", () => {
  for (const side of ["outside", "inside"])
    for (const shape of ["arc", "line"])
      it(`${side}, ${shape} leads: the kerf and the leads lie in the waste, the part keeps its edge`, () => {
        for (let seed = 1; seed <= 4; seed++) {
          const region = ringsFrom([star(seeded(seed), 7 + seed, 22, 36, 50, 50), circle(50, 50, 9, 90, true)]);
          const plan = planOn("plasma", region, cutter, { side, shape, lead: 5 });
          const s = proofOf([{ ...plan, cutter }], 0.2);
          let touched = 0;
          let left = 0;
          for (let j = 0; j < s.height; j += 2)
            for (let i = 0; i < s.width; i += 2) {
              const [x, y] = [(i + 0.5) * 0.2, (j + 0.5) * 0.2];
              const d = distanceToRings(region, x, y);
              const part = insideRegion(region, x, y) === (side === "outside");
              const z = s.z[j * s.width + i];
              if (part && d > 0.02 && z < 0) touched++;
              // Along smooth runs the whole kerf is open; star corners are rounded by nothing on their outside.
              if (!part && d > 0.05 && d < KERF - 0.05 && z > -20 && Math.hypot(x - 50, y - 50) < 10) left++;
            }
          expect(touched, `seed ${seed}`).toBe(0);
          expect(left, `seed ${seed}`).toBe(0);
          for (const p of pierces(plan.toolpath)) {
            expect(insideRegion(region, p.x, p.y)).toBe(side === "inside");
            expect(distanceToRings(region, p.x, p.y)).toBeGreaterThan(KERF);
          }
        }
      });

  it("pierces at its height, waits, cuts at cut height, and puts the torch out before it travels", () => {
    const { toolpath: t, values } = planOn("plasma", panel(3, 90), cutter, {});
    let lit = false;
    for (let i = 1; i < t.kind.length; i++) {
      if (t.kind[i] === TORCH_ON) {
        expect(t.z[i]).toBe(values.pierceHeight);
        expect(t.feed[i]).toBe(values.pierceDelay);
        lit = true;
      } else if (t.kind[i] === TORCH_OFF) lit = false;
      else if (t.kind[i] === RAPID) expect(lit).toBe(false);
      else {
        expect(lit).toBe(true);
        expect(t.z[i]).toBe(values.cutHeight);
      }
    }
    expect(pierces(t).length).toBe(9);
  });

  it("cuts holes before the outsides that hold them, and slows in small holes and at corners", () => {
    const region = ringsFrom([
      [
        [5, 5],
        [95, 5],
        [95, 95],
        [5, 95],
      ],
      circle(50, 50, 32, 180, true),
      circle(14, 14, 4, 60, true),
    ]);
    const { toolpath: t, values } = planOn("plasma", region, cutter, {});
    expect(Math.hypot(pierces(t)[2].x - 50, pierces(t)[2].y - 50)).toBeGreaterThan(40);
    const feeds = (near: (x: number, y: number) => boolean) =>
      [...t.feed].filter((_, i) => t.kind[i] >= 1 && t.kind[i] <= 3 && near(t.x[i], t.y[i]));
    expect(Math.max(...feeds((x, y) => Math.hypot(x - 14, y - 14) < 3.5))).toBeCloseTo(
      0.6 * (values.feed as number),
      6,
    );
    expect(Math.max(...feeds((x, y) => Math.abs(Math.hypot(x - 50, y - 50) - 31.2) < 0.02))).toBeCloseTo(
      values.feed as number,
      6,
    );
    expect(Math.min(...feeds((x, y) => x < 6 && y < 6))).toBeCloseTo(0.75 * (values.feed as number), 6);
  });

  it("travels at least a third less than in file order on a panel of 200 contours", () => {
    const region = panel(14, 98);
    const { toolpath: t } = planOn("plasma", region, "torch:0.4", { lead: 0.6 });
    let inOrder = 0;
    for (let k = 1; k < region.starts.length - 1; k++)
      inOrder += Math.hypot(
        region.xy[2 * region.starts[k]] - region.xy[2 * region.starts[k - 1]],
        region.xy[2 * region.starts[k] + 1] - region.xy[2 * region.starts[k - 1] + 1],
      );
    // Going up and down at every contour is the same in either order.
    const vertical = 2 * pierces(t).length * 5;
    expect(figures(t).rapidLength - vertical).toBeLessThan(0.67 * inOrder);
  });

  it("takes a pierce by hand, and refuses one that would cut the part", () => {
    const region = ringsFrom([
      [
        [30, 30],
        [70, 30],
        [70, 70],
        [30, 70],
      ],
    ]);
    const good = planOn("plasma", region, cutter, { leadsAt: "50 20", shape: "line" });
    expect(pierces(good.toolpath)[0]).toMatchObject({ x: 50, y: 20 });
    const bad = planOn("plasma", region, cutter, { leadsAt: "50 50", shape: "line" });
    expect(bad.notes.map((n) => n.code)).toContain("lead-into-part");
    expect(insideRegion(region, pierces(bad.toolpath)[0].x, pierces(bad.toolpath)[0].y)).toBe(false);
  });

  it("warns of a pierce on the sheet's edge, and of none farther in", () => {
    const at = (left: number) => {
      const square = ringsFrom([
        [
          [left, 30],
          [left + 40, 30],
          [left + 40, 70],
          [left, 70],
        ],
      ]);
      return planOn("plasma", square, cutter, { shape: "none" }).notes.map((n) => n.code);
    };
    // The path runs half a kerf beside the square and is begun at one of its corners.
    expect(at(1.5)).toContain("pierce-at-edge");
    expect(at(10)).not.toContain("pierce-at-edge");
  });

  it("says what falls out, what the kerf swallows, and keeps to the controller's moves", () => {
    const codes = (region: Rings, own: Record<string, string | number>) =>
      planOn("plasma", region, cutter, own).notes.map((n) => n.code);
    expect(codes(ringsFrom([circle(50, 50, 30, 90), circle(50, 50, 20, 90, true)]), { side: "inside" })).toContain(
      "pieces-drop-out",
    );
    expect(codes(ringsFrom([circle(50, 50, 30, 90), circle(50, 50, 0.5, 30, true)]), {})).toContain(
      "narrower-than-kerf",
    );
    const wavy = ringsFrom([star(seeded(3), 300, 38, 40, 50, 50)]);
    const free = planOn("plasma", wavy, cutter, {}).toolpath.kind.length;
    const held = planOn("plasma", wavy, cutter, { linesMost: 150 });
    expect(free).toBeGreaterThan(250);
    expect(held.toolpath.kind.length).toBeLessThanOrEqual(151);
    expect(held.notes.map((n) => n.code)).toContain("path-thinned");
  });
});

describe("plasma on small and crowded shapes", () => {
  it("every number of the path is one, with holes and gaps of every width about the kerf", () => {
    for (let seed = 1; seed <= 40; seed++) {
      const random = seeded(500 + seed);
      const loops: [number, number][][] = [];
      for (let i = 0; i < 36; i++) {
        const [x, y] = [14 + 14 * (i % 6), 14 + 14 * Math.floor(i / 6)];
        // Openings from hardly there to a little wider than the kerf, some of them exactly as wide; pieces that nearly
        // touch.
        const hole = i % 5 === 0 ? KERF / 2 : 0.6 * KERF * random();
        loops.push(
          circle(x, y, 5.4 + 1.7 * random(), 12 + Math.floor(40 * random())),
          circle(x, y, 0.02 + hole, 3 + Math.floor(30 * random()), true),
        );
      }
      const ink = mended(ringsFrom(loops), "positive");
      for (const side of ["outside", "inside"]) {
        const { toolpath: t } = planOn("plasma", ink, cutter, {
          side,
          lead: 3 * random(),
          linesMost: seed % 3 ? 0 : 400,
        });
        for (const values of [t.x, t.y, t.z, t.cx, t.cy, t.feed])
          expect(values.every(Number.isFinite), `seed ${seed}, ${side}`).toBe(true);
      }
    }
  });
});
