import { built } from "@oaken/core/testing/building";
import { expect, it } from "vitest";
import { profileOf } from "@oaken/core/cutters/profile";
import { newSurface } from "@oaken/core/proof/surface";
import { sweep } from "@oaken/core/proof/sweep";
import { seeded } from "@oaken/core/testing/random";
import { Scrubber } from "./scrubber.ts";
import { begun, cutterNamed } from "@oaken/core/testing/shop";

const [width, height] = [300, 200];
const data = new Uint8Array(4 * width * height).fill(255);
for (let y = 0; y < height; y++)
  for (let x = 0; x < width; x++)
    if (Math.abs(Math.hypot(x - 150, y - 100) - 60) < 18) data.fill(20, 4 * (y * width + x), 4 * (y * width + x) + 3);
const job = begun(
  "sign",
  { sha: "d".repeat(64), name: "ring.png", width, height },
  { width: 120, height: 80, thickness: 12 },
  { clear: [cutterNamed("flat3")] },
);
const build = built(job, { width, height, data }, { cells: 40_000 });

/** The surface after a move, swept from nothing. */
function fresh(s: { cell: number }, cut: number, move: number) {
  const out = newSurface(120, 80, s.cell, 12);
  for (let k = 0; k <= cut && k < build.cuts.length; k++) {
    const c = build.cuts[k];
    sweep(
      out,
      c.toolpath,
      profileOf(c.cut.cutter),
      k + 1,
      0,
      k < cut ? c.toolpath.kind.length : Math.min(move, c.toolpath.kind.length),
    );
  }
  return out;
}

it("shows any moment as if it had been cut up to there, forwards, backwards and again", () => {
  const scrubber = new Scrubber(build);
  const random = seeded(6);
  const moments = [
    [0, 0],
    [1, 40],
    [0, 25],
    [1, 1e9],
    [0, 1],
    [build.cuts.length, 0],
  ] as [number, number][];
  for (let k = 0; k < 25; k++) {
    const cut = Math.floor(random() * build.cuts.length);
    moments.push([cut, Math.floor(random() * build.cuts[cut].toolpath.kind.length)]);
  }
  let differed = 0;
  for (const [cut, move] of moments) {
    const seen = scrubber.at(cut, move);
    const want = fresh(seen, cut, move);
    expect([seen.width, seen.height]).toEqual([want.width, want.height]);
    let worst = 0;
    for (let i = 0; i < want.z.length; i++) worst = Math.max(worst, Math.abs(seen.z[i] - want.z[i]));
    expect(worst, `cut ${cut}, move ${move}`).toBeLessThan(1e-5);
    if (want.z.some((z) => z < 0)) differed++;
  }
  expect(differed).toBeGreaterThan(20);
});
