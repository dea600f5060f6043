import { profileOf } from "@oaken/core/cutters/profile";
import { parseCutter } from "@oaken/core/cutters/rack";
import { rangeOf, type HeightField } from "@oaken/core/height/field";
import { tipSurface } from "@oaken/core/height/surface";
import { figures, moveCount } from "@oaken/core/toolpath/toolpath";
import { moveSeconds } from "@oaken/core/toolpath/time";
import { heightsOf, planReading } from "@oaken/core/testing/cutting";
import { seeded } from "@oaken/core/testing/random";
import { ROUTER } from "@oaken/core/testing/shop";
import { ms, row } from "./measure.ts";

/** Samples each way of the map that cutters are laid over, and the cutter across them. */
const SIDE = 2000;
const ACROSS = 40;
/** Rows that testing every cell under the cutter is timed on, and scaled up from. */
const BRUTE_ROWS = 40;

/** A map as a photograph's greys give one: waves at every scale, each half as high as the last, and a little noise. */
function mapOf(width: number, height: number, cell: number, depth: number): Float32Array {
  const random = seeded(4);
  const w = new Float32Array(width * height);
  for (let scale = 40 / cell, gain = 1; scale > 1; scale /= 2, gain /= 2) {
    const [a, b, c, d] = [random(), random(), 6 * random(), 6 * random()];
    for (let j = 0; j < height; j++)
      for (let i = 0; i < width; i++)
        w[j * width + i] += gain * (Math.sin((i / scale) * (3 + a) + c) * Math.sin((j / scale) * (3 + b) + d));
  }
  for (let k = 0; k < w.length; k++) w[k] = (depth * (w[k] - 2)) / 4 + 0.002 * (random() - 0.5);
  return w;
}

/** Milliseconds of testing every cell under the cutter, over the whole map as a few of its rows take. */
function brute(t: HeightField, spec: string): number {
  const p = profileOf(parseCutter(spec));
  const reach = Math.floor(p.radius / t.cell);
  const heights: number[] = [];
  const offsets: number[] = [];
  for (let b = -reach; b <= reach; b++)
    for (let a = -reach; a <= reach; a++) {
      const d = Math.hypot(a, b) * t.cell;
      if (d > p.radius) continue;
      heights.push(p.h(d));
      offsets.push(b * t.width + a);
    }
  const t0 = performance.now();
  let sum = 0;
  for (let j = SIDE / 2; j < SIDE / 2 + BRUTE_ROWS; j++)
    for (let i = reach; i < t.width - reach; i++) {
      let best = -Infinity;
      for (let k = 0; k < heights.length; k++) best = Math.max(best, t.z[j * t.width + i + offsets[k]] - heights[k]);
      sum += best;
    }
  if (Number.isNaN(sum)) throw new Error("The map holds something that is no number.");
  return (performance.now() - t0) * (SIDE / BRUTE_ROWS);
}

/** Cutter surfaces and a finishing, against testing every cell and against the least time that the path needs. */
export async function benchHeight(): Promise<void> {
  console.log(`\nLowest tips over ${SIDE} × ${SIDE} samples, cutters ${ACROSS} samples across`);
  const cell = 0.1;
  const t: HeightField = { x0: 0, y0: 0, cell, width: SIDE, height: SIDE, z: mapOf(SIDE, SIDE, cell, 4) };
  for (const spec of ["ball:4", "flat:4", "v:60:4", "taper:0.5:5:4"]) {
    const t0 = performance.now();
    tipSurface(t, profileOf(parseCutter(spec)));
    const own = performance.now() - t0;
    const every = brute(t, spec);
    row(`  ${spec}`, `${ms(own)} · every cell ${ms(every)} · ${(every / own).toFixed(1)} × faster (at least 8)`);
  }
  const board = { width: 180, height: 130, thickness: 18 };
  const field: HeightField = { x0: 0, y0: 0, cell, width: 1800, height: 1300, z: mapOf(1800, 1300, cell, 4) };
  const t1 = performance.now();
  const plan = planReading("finish", { art: heightsOf(field) }, "ball:3", { stepover: 0.15 }, {}, board);
  const took = performance.now() - t1;
  const path = figures(plan.toolpath);
  const seconds = moveSeconds(plan.toolpath, ROUTER).reduce((a, b) => a + b, 0);
  const least = (path.cutLength / Number(plan.values.feed)) * 60;
  console.log(`\nFinishing 180 × 130 mm, ${-rangeOf(field).low.toFixed(1)} mm deep, lines 0.15 mm apart`);
  row("  planned in", `${ms(took)} (at most 3 s)`);
  const passed = (board.width / cell) * (board.height / 0.15);
  const moves = moveCount(plan.toolpath);
  row("  moves", `${moves}, ${(passed / moves).toFixed(1)} × fewer than cells (at least 4)`);
  row("  machining time", `${(seconds / least).toFixed(2)} × path length over feed (at most 1.15)`);
}
