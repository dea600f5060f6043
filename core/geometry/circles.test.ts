import { expect, it } from "vitest";
import { roundsAndSquare, seeded, star } from "../testing/random.ts";
import { circlesOf } from "./circles.ts";
import { ringsFrom } from "./rings.ts";

it("finds circles, pieces and holes alike, and nothing else", () => {
  const art = ringsFrom(roundsAndSquare());
  expect(circlesOf(art).map((c) => [c.x, c.y, c.r].map((v) => Math.round(v * 10) / 10))).toEqual([
    [20, 20, 2.5],
    [70, 30, 2],
    [50, 70, 3],
  ]);
  expect(circlesOf(ringsFrom([star(seeded(2), 20, 5, 8)]))).toEqual([]);
});
