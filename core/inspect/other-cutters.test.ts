import { describe, expect, it } from "vitest";
import { chooseAll } from "../job/choose.ts";
import type { BoardJob } from "../job/document.ts";
import { takeCutters } from "../job/edit.ts";
import { onePicture } from "../job/tools.ts";
import { Kept } from "../kept.ts";
import type { Raster } from "../picture/raster.ts";
import { built } from "../testing/building.ts";
import { toPlan } from "../testing/choosing.ts";
import { bowlsDrawn, drawn } from "../testing/drawn.ts";
import { cutterNamed, cutterOf, SHOP } from "../testing/shop.ts";
import type { Finding } from "./finding.ts";
import { inspect } from "./inspect.ts";

const STOCK = { width: 150, height: 100, thickness: 12 };
const stops = (job: BoardJob, raster: Raster): Finding[] =>
  inspect({ build: built(job, raster, { cells: 60_000 }) }).filter((f) => f.severity === "stop");

describe("a cut whose cutter has no way in, or is too wide, is offered other cutters of the rack, and those do", () => {
  const ring = drawn((x, y) => Math.abs(Math.hypot(x - 75, y - 50) - 30) < 10);
  for (const [outcome, raster, code, edit] of [
    [
      "relief",
      bowlsDrawn(),
      "no-way-in",
      (job: BoardJob, main: BoardJob["cuts"][number]) => {
        job.makings.find((m) => m.kind === "height")!.settings = { depth: 8 };
        takeCutters(job, main, { own: false, kind: "rough" }, [cutterNamed("flat10")]);
      },
    ],
    [
      "pocket",
      ring,
      "cutter-too-wide",
      (_: BoardJob, main: BoardJob["cuts"][number]) => void (main.cutter = cutterOf("flat:40")),
    ],
  ] as const)
    it(`${outcome}: ${code}`, () => {
      const { job } = toPlan(outcome, raster, STOCK);
      const main = job.cuts.find((c) => !c.target)!;
      edit(job, main);
      const { cure } = stops(job, raster).find((f) => f.code === code)!;
      expect(cure).toEqual({ id: main.id, chooses: true, label: expect.any(String) });
      const chosen = chooseAll(job, SHOP.cutters, onePicture(raster), new Kept(), { only: cure!.id });
      expect(chosen.choices[0].tried[0].isPlanned).toBe(true);
      expect(stops(chosen.job, raster)).toEqual([]);
    });

  it("only estimates are left where every set that was planned is stopped", () => {
    const raster = bowlsDrawn();
    const { job } = toPlan("relief", raster, STOCK);
    job.makings.find((m) => m.kind === "height")!.settings = { depth: 8 };
    const only = SHOP.cutters.filter((c) => c.kind !== "flat" || c.id === "flat10");
    const { choices } = chooseAll(job, only, onePicture(raster), new Kept());
    const [best] = choices[0].tried;
    expect([best.cutters.map((c) => c.id), best.isPlanned]).toEqual([["flat10"], false]);
  });
});
