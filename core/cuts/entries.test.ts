import { describe, expect, it } from "vitest";
import { mended } from "../geometry/mend.ts";
import { ringsFrom, type Rings } from "../geometry/rings.ts";
import type { Settings } from "../settings/fields.ts";
import { planOn } from "../testing/cutting.ts";
import { entriesOf, stockCell } from "../testing/entries.ts";
import { blob, circle, seeded, star } from "../testing/random.ts";
import { cutterOf } from "../testing/shop.ts";

const SIZE = 100;

/** A random region on the stock: spiky, round, in strips or with islands; corners and necks of every width. */
function region(random: () => number): Rings {
  const place = (): [number, number] => [35 + 30 * random(), 35 + 30 * random()];
  const loops: [number, number][][] = [];
  const kind = Math.floor(4 * random());
  if (kind === 0)
    loops.push(star(random, 5 + Math.floor(12 * random()), 4 + 14 * random(), 20 + 22 * random(), 50, 50));
  if (kind === 1)
    loops.push(
      blob(random, 200, 12 + 20 * random(), 50, 50, 0.3 * random()),
      circle(50, 50, 2 + 5 * random(), 40, true),
    );
  if (kind === 2)
    for (let k = 0; k < 4; k++) {
      const [x, y] = place();
      const [a, length, half] = [Math.PI * random(), 10 + 25 * random(), 0.3 + 4 * random() ** 2];
      const [ux, uy] = [Math.cos(a), Math.sin(a)];
      const corner = (s: number, t: number): [number, number] => [
        x + s * length * ux - t * half * uy,
        y + s * length * uy + t * half * ux,
      ];
      loops.push([corner(-0.5, -1), corner(0.5, -1), corner(0.5, 1), corner(-0.5, 1)]);
    }
  if (kind === 3) for (let k = 0; k < 5; k++) loops.push(circle(...place(), 1 + 6 * random(), 60));
  return mended(ringsFrom(loops));
}

const settled = (plan: { notes: { code: string }[] }, code: string): boolean => plan.notes.some((n) => n.code === code);

/** Nothing goes straight or steeply into solid stock, unless it is said that a cutter which may do so does. */
function check(
  plan: ReturnType<typeof planOn>,
  cutter: string,
  before: Float32Array | undefined,
  angle: number,
  what: string,
): void {
  const c = cutterOf(cutter);
  const e = entriesOf(plan.toolpath, c.diameter / 2, SIZE, before);
  if (!c.centreCutting || !settled(plan, "plunges-into-stock"))
    expect(e.plunges.length, `${what}: plunge at move ${e.plunges[0]}`).toBe(0);
  expect((Math.atan(e.steepest) * 180) / Math.PI, `${what}: move ${e.steepestAt}`).toBeLessThanOrEqual(angle + 0.06);
  expect(e.rapids.length, `${what}: rapid at move ${e.rapids[0]}`).toBe(0);
}

describe("ways into solid stock", () => {
  for (const way of ["rings", "lines", "even"])
    for (const cutter of ["flat10", "flat:3"])
      it(`pocket by ${way}, ${cutter}: helix or ramp within the angle asked, or where it is open`, () => {
        for (let seed = 1; seed <= 14; seed++) {
          const random = seeded(100 * seed + way.length);
          const ink = region(random);
          const ramp = 2 + 6 * random();
          const settings: Settings = {
            way,
            depth: 2 + 4 * random(),
            stepdown: 1 + 3 * random(),
            stepover: cutterOf(cutter).diameter * (0.2 + 0.3 * random()),
            ramp,
            entry: ["auto", "helix", "ramp"][seed % 3],
            finish: seed % 2 ? 0.3 : 0,
            first: seed % 4 === 1 ? "walls" : "floor",
            angle: 90 * random(),
          };
          check(planOn("pocket", ink, cutter, settings), cutter, undefined, ramp, `seed ${seed}`);
        }
      });

  it("a place hardly wider than a cutter that does not cut at its centre is left out with a word", () => {
    let leftOut = 0;
    for (let seed = 1; seed <= 80; seed++) {
      const random = seeded(2000 + seed);
      const wide = 5.05 + 2 * random();
      const loop =
        seed % 2
          ? blob(random, 200, wide, 50, 50, 0.3 * random())
          : star(random, 3 + Math.floor(5 * random()), 0.9 * wide, 1.6 * wide, 50, 50);
      const plan = planOn("pocket", mended(ringsFrom([loop])), "flat10", { depth: 2 });
      check(plan, "flat10", undefined, 3, `seed ${seed}`);
      if (settled(plan, "no-way-in")) leftOut++;
    }
    expect(leftOut).toBeGreaterThan(10);
  });

  it("rest and clear likewise, whatever was opened before", () => {
    for (let seed = 1; seed <= 16; seed++) {
      const random = seeded(700 + seed);
      const ink = region(random);
      const settings: Settings = { depth: 3, stepdown: 1.5, finish: 0 };
      const big = planOn("pocket", ink, "flat:8", settings);
      const target = { id: "pocket", kind: "pocket", cutter: cutterOf("flat:8"), settings: big.values };
      const small = planOn("rest", ink, "flat:3", { ramp: 4 }, { target });
      // The larger cutter's stock, stamped on the smaller one's cells.
      const cell = stockCell(1.5);
      const stock = new Float32Array(Math.ceil(SIZE / cell) ** 2);
      entriesOf(big.toolpath, 4, SIZE, stock, cell);
      check(small, "flat:3", stock, 4, `rest ${seed}`);
      const v = {
        id: "v",
        kind: "vcarve",
        cutter: cutterOf("v:60:30"),
        settings: { floor: 3, ridge: 0.1, limited: true },
      };
      check(
        planOn("clear", ink, "flat:3", { ramp: 5, stepdown: 1 }, { target: v }),
        "flat:3",
        undefined,
        5,
        `clear ${seed}`,
      );
    }
  });

  it("cutting out, engraving and hatching with a flat cutter likewise", () => {
    for (let seed = 1; seed <= 12; seed++) {
      const random = seeded(900 + seed);
      const ink = region(random);
      const cutter = seed % 2 ? "flat:3" : "flat10";
      check(
        planOn("profile", ink, cutter, {
          side: seed % 3 ? "outside" : "inside",
          ramp: 4,
          tabs: 0,
          lead: seed % 4 === 0 ? 3 : 0,
          lastPass: seed % 5 === 0 ? 0.4 : 0,
          stepdown: 2,
        }),
        cutter,
        undefined,
        4,
        `profile ${seed}`,
      );
      check(
        planOn("engrave", ink, "flat:1", { by: "depth", depth: 1, stepdown: 0.6 }),
        "flat:1",
        undefined,
        3,
        `engrave ${seed}`,
      );
      check(
        planOn("hatch", ink, "flat:2", { depth: 1, stepdown: 0.6, spacing: 3 }),
        "flat:2",
        undefined,
        3,
        `hatch ${seed}`,
      );
    }
  });

  it("a slot no longer than the cutter: one that cuts at its centre plunges and says so, others leave it out", () => {
    const slot = (half: number) => ringsFrom([circle(50, 50, half, 90)]);
    const small = planOn("pocket", slot(1.53), "flat:3", { depth: 3, stepdown: 3, finish: 0 });
    expect(small.notes.map((n) => [n.code, n.severity])).toEqual([["plunges-into-stock", "warning"]]);
    expect(small.toolpath.kind.length).toBeGreaterThan(3);
    const large = planOn("pocket", slot(5.4), "flat10", { depth: 3, stepdown: 1, finish: 0 });
    expect(large.notes.map((n) => [n.code, n.severity])).toEqual([["no-way-in", "stop"]]);
    expect(Math.min(0, ...large.toolpath.z)).toBe(0);
  });
});
