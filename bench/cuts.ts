import { HOBBY_ROUTER } from "@oaken/core/cutters/feeds";
import { materialById } from "@oaken/core/cutters/materials";
import { cutterFromRack } from "@oaken/core/cutters/rack";
import { profileOf } from "@oaken/core/cutters/profile";
import type { CutInputs } from "@oaken/core/cuts/kind";
import { cutKind } from "@oaken/core/cuts/register";
import { clearanceOf, inset } from "@oaken/core/geometry/clearance/clearance";
import { ringsFrom } from "@oaken/core/geometry/rings";
import { newSurface } from "@oaken/core/proof/surface";
import { sweep } from "@oaken/core/proof/sweep";
import { resolve } from "@oaken/core/settings/fields";
import { circle, seeded, star } from "@oaken/core/testing/random";
import { figures } from "@oaken/core/toolpath/toolpath";
import { median, ms, row } from "./measure.ts";

/** Clearance, carve and proof on 60 contours, against a plain minimum over the same cells. */
export async function benchCuts(): Promise<void> {
  const random = seeded(3);
  const loops = Array.from({ length: 60 }, (_, i) => {
    const [x, y] = [15 + (i % 10) * 29, 15 + Math.floor(i / 10) * 32];
    return i % 2 ? star(random, 40, 4, 12, x, y) : circle(x, y, 8, 400);
  });
  const region = ringsFrom(loops);
  let edge = 0;
  for (const l of loops) l.forEach(([x, y], i) => (edge += Math.hypot(x - l[(i + 1) % l.length][0], y - l[(i + 1) % l.length][1])));
  console.log(`\nCuts: 60 contours, ${(edge / 1000).toFixed(1)} m of edge, ${region.xy.length / 2} points`);
  let c = clearanceOf(region);
  row("clearance (medial axis, every node exact)", ms(median(3, () => (c = clearanceOf(region)))), `${c.axis.x.length} nodes`);
  row("one inset read off it", ms(median(5, (k) => inset(c, 1 + 0.1 * k))));
  const context = { cutter: cutterFromRack("v60"), stock: { width: 300, height: 200, thickness: 20, margin: 5 }, material: materialById("ash"), machine: HOBBY_ROUTER, helpers: [], earlier: [] };
  const kind = cutKind("vcarve");
  const { values } = resolve(kind.fields, {}, context);
  const inputs: CutInputs = { ...context, ink: region, lines: null, carveRegion: () => region, clearance: () => c, progress: () => {} };
  let plan = kind.plan(inputs, values);
  row("V-carve moves from clearance", ms(median(3, () => (plan = kind.plan(inputs, values)))), `${plan.toolpath.kind.length} moves, ${(figures(plan.toolpath).cutLength / 1000).toFixed(1)} m`);
  const s = newSurface(300, 200, 0.1);
  const p = profileOf(context.cutter);
  const time = median(3, () => {
    s.z.fill(0);
    sweep(s, plan.toolpath, p, 1);
  });
  const a = new Float32Array(s.z.length);
  const plain = median(5, (k) => {
    for (let i = 0; i < a.length; i++) {
      const v = s.z[i] - k;
      if (v < a[i]) a[i] = v;
    }
  });
  row("proof at 0.1 mm of 300 × 200 mm", ms(time));
  row("plain minimum over the same cells, once", ms(plain), `proof takes ${(time / plain).toFixed(1)} ×`);
}
