import { expect, it } from "vitest";
import { circle, seeded, star } from "../testing/random.ts";
import { circlesOf } from "./circles.ts";
import { ringsFrom } from "./rings.ts";

it("finds circles, pieces and holes alike, and nothing else", () => {
  const art = ringsFrom([
    circle(20, 20, 2.5, 64),
    circle(70, 30, 2, 64),
    [
      [40, 60],
      [60, 60],
      [60, 80],
      [40, 80],
    ],
    circle(50, 70, 3, 64, true),
  ]);
  expect(circlesOf(art).map((c) => [c.x, c.y, c.r].map((v) => Math.round(v * 10) / 10))).toEqual([
    [20, 20, 2.5],
    [70, 30, 2],
    [50, 70, 3],
  ]);
  expect(circlesOf(ringsFrom([star(seeded(2), 20, 5, 8)]))).toEqual([]);
});
