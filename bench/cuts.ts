import { CLEAR, figures, moveLength, RAPID } from "@oaken/core/toolpath/toolpath";
import { Kept } from "@oaken/core/kept";
import { shapesOf } from "@oaken/core/testing/cutting";
import { profileOf } from "@oaken/core/cutters/profile";
import type { CutInputs, Planned } from "@oaken/core/cuts/kind";
import { cutKind } from "@oaken/core/cuts/register";
import { type Clearance, clearanceOf, inset } from "@oaken/core/geometry/clearance/clearance";
import { nesting } from "@oaken/core/geometry/nesting";
import { ringCount, ringsFrom, ringsLength, type Rings } from "@oaken/core/geometry/rings";
import { newSurface } from "@oaken/core/proof/surface";
import { sweep } from "@oaken/core/proof/sweep";
import { resolve, type Settings } from "@oaken/core/settings/fields";
import { blob, circle, seeded, star } from "@oaken/core/testing/random";
import { moveSeconds } from "@oaken/core/toolpath/time";
import { clipperInset } from "./clipper.ts";
import { collectGarbage, median, ms, row } from "./measure.ts";
import { ROUTER, cutterNamed, materialNamed, cutterOf } from "@oaken/core/testing/shop";

/** Plans one cut from nothing: clearance and all, as the first time on a drawing. */
function planFresh(
  kind: string,
  region: Rings,
  cutter: string,
  own: Settings,
  size: { width: number; height: number; thickness: number },
): Planned {
  const context = {
    cutter: cutterOf(cutter),
    stock: { ...size, margin: 5, coat: 0, travel: CLEAR },
    material: materialNamed(kind === "plasma" ? "steel" : "ash"),
    machine: ROUTER,
    helpers: [],
    earlier: [],
  };
  const made = new Map<Rings, Clearance>();
  const inputs: CutInputs = {
    ...context,
    reads: { art: shapesOf(region), border: null },
    kept: new Kept(),
    grain: null,
    clearance: (r) => made.get(r) ?? made.set(r, clearanceOf(r)).get(r)!,
    progress: () => {},
  };
  const k = cutKind(kind);
  return k.plan(inputs, resolve(k.fields, own, context).values);
}

/** 60 contours with about 2 m of edge, as a tracing of a drawing comes: flattened curves, some with corners. */
function drawing(): Rings {
  const random = seeded(3);
  return ringsFrom(
    Array.from({ length: 60 }, (_, i) => {
      const [x, y] = [15 + (i % 10) * 29, 18 + Math.floor(i / 10) * 32];
      return i % 3 === 2 ? star(random, 24, 3.5, 5.5, x, y) : blob(random, 420, 4.9, x, y);
    }),
  );
}

/** Area under a cutter of radius R, move by move, mm²: what a minimum over the same cells would have to look at. */
function footprint(t: Planned["toolpath"], R: number): number {
  let sum = 0;
  for (let i = 1; i < t.kind.length; i++)
    if (t.kind[i] !== RAPID && t.z[i] < 0) sum += moveLength(t, i) * 2 * R + Math.PI * R * R;
  return sum;
}

function panel(n: number): Rings {
  const random = seeded(9);
  const loops = Array.from({ length: n }, (_, i) => ({ i, at: random() }))
    .sort((a, b) => a.at - b.at)
    .map(({ i }) => {
      const [x, y] = [30 + (i % 20) * 48, 30 + Math.floor(i / 20) * 54];
      return i % 2 ? star(random, 11, 9, 18, x, y) : circle(x, y, 15, 72);
    });
  const r = ringsFrom(loops);
  r.parent = nesting(r);
  return r;
}

const BOARD = { width: 300, height: 200, thickness: 20 };

/** How often the proof and what it is measured against have their turns. */
const TURNS = 5;

/**
 * Cuts and proof, as ratios against single insets by the registry's polygon library and a plain pass over the same
 * cells.
 */
export async function benchCuts(): Promise<void> {
  const region = drawing();
  region.parent = nesting(region);
  console.log(
    `\nCuts: 60 contours, ${(ringsLength(region) / 1000).toFixed(2)} m of edge, ${region.xy.length / 2} points`,
  );
  const library = await clipperInset(region);
  const one = median(9, (k) => library.inset(0.6 + 0.02 * k));
  row("one inset by clipper2-wasm, round joins, arcs within 2 µm", ms(one));
  const against = (t: number, most: number) => `${(t / one).toFixed(2)} such insets, asked ${most} at most`;
  row("clearance (medial axis, every node exact)", ms(median(5, () => clearanceOf(region))));
  const c = clearanceOf(region);
  row("one inset read off it", ms(median(9, (k) => inset(c, 0.6 + 0.02 * k))));
  let carve: Planned | null = null;
  const vcarve = median(5, () => (carve = planFresh("vcarve", region, "v:60:12", { floor: 10 }, BOARD)));
  row("V-carve, clearance to finished path", ms(vcarve), against(vcarve, 4));
  let rings = 0;
  const pocketOf = () =>
    planFresh("pocket", region, "flat:0.4", { depth: 0.1, stepdown: 1, stepover: 0.15, finish: 0 }, BOARD);
  const pocket = median(5, () => void (rings = pocketOf().toolpath.kind.length));
  row(
    `pocket of ${Math.floor(c.widest / 0.15)} rings, clearance to finished path`,
    ms(pocket),
    `${against(pocket, 6)}; ${rings} moves`,
  );
  library.done();

  console.log("  cost of a V-carve with the number of edge points:");
  let before = 0;
  for (const n of [31_250, 125_000, 500_000]) {
    const random = seeded(n);
    const big = ringsFrom(
      Array.from({ length: n / 2500 }, (_, i) =>
        blob(random, 2500, 12, 15 + (i % 16) * 30, 15 + Math.floor(i / 16) * 30),
      ),
    );
    const t0 = performance.now();
    planFresh("vcarve", big, "v:60:12", { floor: 10 }, { width: 500, height: 500, thickness: 20 });
    const t = performance.now() - t0;
    row(
      `  ${n.toLocaleString("en")} points`,
      ms(t),
      before > 0 ? `${(t / before).toFixed(1)} × for 4 × the points` : "",
    );
    before = t;
  }

  console.log("  proof:");
  const path = carve!.toolpath;
  const p = profileOf(cutterNamed("v60"));
  const s = newSurface(BOARD.width, BOARD.height, 0.1);
  const long = planFresh("pocket", region, "flat:2", { depth: 4, stepdown: 1, stepover: 0.25 }, BOARD).toolpath;
  row(
    `  carve of ${(figures(path).cutLength / 1000).toFixed(1)} m, 300 × 200 mm at 0.1 mm`,
    ms(median(3, () => (s.z.fill(0), void sweep(s, path, p, 1)))),
  );
  const flat = profileOf(cutterOf("flat:2"));
  // By turns, the fastest of each: what else the machine does only ever adds.
  const a = new Float32Array(s.z.length);
  // Lower every time, so that every cell is written, as where a cutter comes first.
  let low = 0;
  const plainly = () => {
    low--;
    for (let i = 0; i < a.length; i++) {
      const v = s.z[i] + low;
      if (v < a[i]) a[i] = v;
    }
  };
  let [sweeping, plain] = [Infinity, Infinity];
  for (let turn = 0; turn < TURNS; turn++) {
    sweeping = Math.min(
      sweeping,
      median(1, () => (s.z.fill(0), void sweep(s, long, flat, 1))),
    );
    plain = Math.min(plain, median(3, plainly));
  }
  const metres = figures(long).cutLength / 1000;
  row(
    `  pocketing of ${metres.toFixed(1)} m, the same`,
    ms(sweeping),
    `${ms((sweeping * 40) / metres)} for 40 m, asked 1500 ms at most`,
  );
  // What the moves pass over, cell by cell and move by move, against a plain minimum over as many cells.
  const cells = footprint(long, 1) / 0.01;
  const share = cells / sweeping / (a.length / plain);
  row("  cells under the cutter a second, against a plain minimum", `${share.toFixed(2)} ×`, "asked 0.25 at least");
  collectGarbage();
  const used = process.memoryUsage().arrayBuffers;
  const wide = newSurface(1000, 600, 0.1);
  sweep(wide, path, p, 1);
  row(
    "  1 m × 0.6 m at 0.1 mm holds",
    `${((process.memoryUsage().arrayBuffers - used) / 2 ** 20).toFixed(0)} MB`,
    "asked 400 at most",
  );

  console.log("  plasma panel of 200 contours:");
  const sheet = panel(200);
  const plan = () => planFresh("plasma", sheet, "torch:1.5", { lead: 4 }, { width: 1000, height: 600, thickness: 3 });
  const plasma = median(3, plan);
  row("  planned within", ms(plasma), "asked 500 ms at most");
  const t = plan().toolpath;
  let inOrder = 0;
  for (let k = 1; k < ringCount(sheet); k++)
    inOrder += Math.hypot(
      sheet.xy[2 * sheet.starts[k]] - sheet.xy[2 * sheet.starts[k - 1]],
      sheet.xy[2 * sheet.starts[k] + 1] - sheet.xy[2 * sheet.starts[k - 1] + 1],
    );
  let sideways = 0;
  for (let i = 1; i < t.kind.length; i++)
    if (t.kind[i] === RAPID) sideways += Math.hypot(t.x[i] - t.x[i - 1], t.y[i] - t.y[i - 1]);
  row(
    "  travel between cuts, against file order",
    `${(100 * (1 - sideways / inOrder)).toFixed(0)} % less`,
    "asked 30 at least",
  );
  row("  machining time of its moves worked out in", ms(median(5, () => moveSeconds(t, ROUTER))));
}
