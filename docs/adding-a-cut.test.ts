import { mkdtempSync, readFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import { build } from "esbuild";
import { expect, it } from "vitest";
import { HOBBY_ROUTER } from "../core/cutters/feeds.ts";
import { materialById } from "../core/cutters/materials.ts";
import { cutterFromRack } from "../core/cutters/rack.ts";
import type { CutKind } from "../core/cuts/kind.ts";
import { ringsFrom } from "../core/geometry/rings.ts";
import { resolve as fill } from "../core/settings/fields.ts";
import { proofOf } from "../core/testing/cutting.ts";

it("the page's own code is a cut that works", async () => {
  const page = readFileSync(join(import.meta.dirname, "adding-a-cut.md"), "utf8");
  const code = /```ts\n([\s\S]*?)```/.exec(page)![1];
  // Any cut's folder: the new one would lie beside it.
  const beside = resolve(import.meta.dirname, "../core/cuts/clear");
  const outfile = join(mkdtempSync(join(tmpdir(), "oaken-page-")), "trace.mjs");
  await build({
    stdin: { contents: code, resolveDir: beside, loader: "ts" },
    outfile,
    bundle: true,
    platform: "node",
    format: "esm",
    logLevel: "error",
    nodePaths: [resolve(import.meta.dirname, "../node_modules")],
  });
  const { trace } = (await import(outfile)) as { trace: CutKind };

  const context = {
    cutter: cutterFromRack("flat2"),
    stock: { width: 100, height: 100, thickness: 10, margin: 5 },
    material: materialById("oak"),
    machine: HOBBY_ROUTER,
    helpers: [],
  };
  const { values, resolved } = fill(trace.fields, { depth: 0.8 }, context);
  expect(resolved.depth.consequence).toBe("leaves 9.2 mm");
  expect(trace.summary(values, context.cutter)).toBe("0.8 mm deep along the outline");
  const ink = ringsFrom([
    [
      [20, 20],
      [80, 20],
      [80, 60],
      [20, 60],
    ],
  ]);
  const plan = trace.plan(
    {
      ...context,
      ink,
      carveRegion: () => ink,
      clearance: () => {
        throw new Error("not needed");
      },
      progress: () => {},
    },
    values,
  );
  const s = proofOf([{ ...plan, cutter: "flat:2" }], 0.25);
  const at = (x: number, y: number) => s.z[Math.floor(y / 0.25) * s.width + Math.floor(x / 0.25)];
  expect(at(50, 20.1)).toBeCloseTo(-0.8, 6);
  expect(at(50, 22)).toBe(0);
});
