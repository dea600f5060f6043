import { CLEAR } from "@oaken/core/toolpath/toolpath";
import { profileOf } from "@oaken/core/cutters/profile";

import type { CutInputs } from "@oaken/core/cuts/kind";
import { cutKind } from "@oaken/core/cuts/register";
import { type Clearance, clearanceOf } from "@oaken/core/geometry/clearance/clearance";
import { maskOf } from "@oaken/core/geometry/mask";
import { nesting } from "@oaken/core/geometry/nesting";
import { boundsOf, ringsFrom, type Rings } from "@oaken/core/geometry/rings";
import { SegmentGrid } from "@oaken/core/geometry/segmentgrid";
import { Kept } from "@oaken/core/kept";
import { built, productIn } from "@oaken/core/testing/building";
import { shapesOf } from "@oaken/core/testing/cutting";
import { newSurface } from "@oaken/core/proof/surface";
import { sweep } from "@oaken/core/proof/sweep";
import { resolve } from "@oaken/core/settings/fields";
import { circle, seeded, star } from "@oaken/core/testing/random";
import { figures, moveCount, PLUNGE, type Toolpath } from "@oaken/core/toolpath/toolpath";
import { decodePicture } from "@oaken/files/decode";
import { sha256 } from "@oaken/files/sha256";
import { beeWalk, type Drawing, ginkgo, scan, seedDrawer } from "../demo/art.ts";
import { row } from "./measure.ts";
import { neededLength } from "./needed.ts";
import { ROUTER, begun, materialNamed, cutterOf } from "@oaken/core/testing/shop";

const ANGLE = 60;
const CELL = 0.05;
const RIDGE = 0.1;

/**
 * A carve with a clearing cutter against its definition z = −min(F, d / tan 30°), cell by cell of a fine proof: the
 * largest error normal to the wall, how far beyond the outline anything is cut, the share of floor higher than the
 * stated ridge, and the length of the carve's moves against the medial axis (above the floor's depth, and where it
 * crosses floor that no clearing cutter reached) and what the floor needs: the foot of every wall, and that area over
 * the distance between passes.
 */
function accuracy(name: string, region: Rings, floor: number, clearing: string): void {
  region.parent = nesting(region);
  const b = boundsOf(region.xy);
  const size = {
    width: Math.ceil(b.maxX + 5),
    height: Math.ceil(b.maxY + 5),
    thickness: 20,
    margin: 0,
    coat: 0,
    travel: CLEAR,
  };
  const cutters = { v: cutterOf(`v:${ANGLE}:20`), flat: cutterOf(clearing) };
  const base = { stock: size, material: materialNamed("ash"), machine: ROUTER };
  const made = new Map<Rings, Clearance>();
  const shared = {
    reads: { art: shapesOf(region), border: null },
    kept: new Kept(),
    grain: null,
    clearance: (r: Rings) => made.get(r) ?? made.set(r, clearanceOf(r)).get(r)!,
    progress: () => {},
  };
  const [vcarve, clear] = [cutKind("vcarve"), cutKind("clear")];
  const carveContext = { ...base, cutter: cutters.v, helpers: [], earlier: [] };
  const carveValues = resolve(vcarve.fields, { floor, ridge: RIDGE, stepdown: 50 }, carveContext).values;
  const clearContext = {
    ...base,
    cutter: cutters.flat,
    helpers: [],
    earlier: [],
    target: { id: "c", kind: "vcarve", cutter: cutters.v, settings: carveValues },
  };
  const clearValues = resolve(clear.fields, {}, clearContext).values;
  const cleared = clear.plan({ ...clearContext, ...shared } as CutInputs, clearValues);
  const carved = vcarve.plan(
    {
      ...carveContext,
      ...shared,
      helpers: [{ id: "k", kind: "clear", cutter: cutters.flat, settings: clearValues }],
    } as CutInputs,
    carveValues,
  );
  const s = newSurface(size.width, size.height, CELL, size.thickness);
  sweep(s, cleared.toolpath, profileOf(cutters.flat), 1);
  const afterClear = s.z.slice();
  sweep(s, carved.toolpath, profileOf(cutters.v), 2);
  const inside = maskOf(region, s.width, s.height, CELL);
  const grid = new SegmentGrid(region);
  const slope = 1 / Math.tan((ANGLE * Math.PI) / 360);
  const rho = floor / slope;
  let [wall, outside, high, floorCells, open] = [0, 0, 0, 0, 0];
  for (let k = 0; k < s.z.length; k++) {
    const z = s.z[k];
    if (!inside[k] && z >= 0) continue;
    const x = ((k % s.width) + 0.5) * CELL;
    const y = (Math.floor(k / s.width) + 0.5) * CELL;
    const d = grid.distance(x, y, rho + 1);
    if (!inside[k]) {
      if (z < -1e-4) outside = Math.max(outside, d);
      continue;
    }
    if (d < rho) wall = Math.max(wall, Math.abs(z + d * slope) * Math.sin((ANGLE * Math.PI) / 360));
    if (d > rho + CELL) {
      floorCells++;
      if (z > -floor + RIDGE * 1.02 + 0.002) high++;
      if (afterClear[k] > -floor + 0.01) open++;
    }
  }
  const c = shared.clearance(region);
  const needed = neededLength(
    c,
    { rho, slope, apart: 2 * profileOf(cutters.v).r(RIDGE) },
    {
      isOpen: (x, y) => afterClear[Math.floor(y / CELL) * s.width + Math.floor(x / CELL)] > -floor + 0.01,
      area: open * CELL * CELL,
    },
  );
  const moves = lengthInStock(carved.toolpath);
  row(
    `  ${name}`,
    `${wall.toFixed(4)} mm`,
    `outside ${outside.toFixed(4)} mm; floor left ` +
      `${floorCells > 0 ? ((100 * high) / floorCells).toFixed(3) : "0"} %; moves in the stock ` +
      `${(moves / needed).toFixed(2)} × of ${(needed / 1000).toFixed(2)} m needed`,
  );
}

/**
 * Length of the cutting moves, without the last half millimetre of air above the stock that every plunge begins in; mm.
 */
function lengthInStock(t: Toolpath): number {
  let air = 0;
  for (let i = 1; i < moveCount(t); i++) if (t.kind[i] === PLUNGE) air += Math.max(0, t.z[i - 1]) - Math.max(0, t.z[i]);
  return figures(t).cutLength - air;
}

async function outlineOf(d: Drawing, width: number): Promise<Rings> {
  const bytes = await scan(d, { blur: 1.2, jpeg: 80 });
  const raster = await decodePicture(bytes, "scan.jpg");
  const job = begun(
    "sign",
    { sha: sha256(bytes), name: "scan.jpg", width: raster.width, height: raster.height },
    { width: width + 20, height: width + 20, thickness: 20 },
  );
  job.makings[0].settings.width = width;
  return productIn(built(job, raster, { cell: 10, quick: true }), "shapes").ink;
}

/** Accuracy of carves on random polygons and on the demo's outlines. */
export async function benchAccuracy(): Promise<void> {
  console.log(
    `\nV-carve against its definition (V ${ANGLE}°, clearing cutter, proof at ${CELL} mm): wall error, asked ` +
      "0.01 mm at most",
  );
  for (const seed of [1, 2, 3, 4])
    accuracy(
      `random star ${seed} with a hole`,
      ringsFrom([star(seeded(seed), 9 + 4 * seed, 12, 30, 40, 40), circle(40, 40, 5, 64, true)]),
      3,
      "flat:4",
    );
  accuracy("ginkgo, 165 mm", await outlineOf(ginkgo(), 165), 3, "flat:2");
  accuracy("seed drawer, 200 mm", await outlineOf(seedDrawer(), 200), 2, "flat:2");
  accuracy("bee walk, 150 mm", await outlineOf(beeWalk(), 150), 1, "flat:1");
}
