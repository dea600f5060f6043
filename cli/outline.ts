import { basename } from "node:path";
import { drawingFiles, mainShapes } from "@oaken/core/job/drawings";
import { onePicture } from "@oaken/core/job/tools";
import { Kept } from "@oaken/core/kept";
import { buildJob } from "@oaken/core/job/build";
import { startJob } from "@oaken/core/job/start";
import { checkBoard } from "@oaken/core/job/schema";
import { warmUp } from "@oaken/core/outline/warm";
import { loaded } from "@oaken/core/later";
import { Problem } from "@oaken/core/problem";
import { FIRST_SHOP } from "@oaken/core/shop/first/shop";
import { decodePicture } from "@oaken/files/decode";
import { sha256 } from "@oaken/files/sha256";
import { configure } from "./configure.ts";
import { readInput } from "./input.ts";
import { parseMake } from "./options.ts";
import { outlineReport } from "./report.ts";
import { writeAll } from "./write.ts";

/** Stock that any outline fits on: `oaken outline` cuts nothing. */
const SHEET = { width: 10000, height: 10000, thickness: 18 };

/** Runs `oaken outline`: the outline alone, as drawings with its figures. @returns the exit code */
export async function outline(args: string[], print: (line: string) => void): Promise<number> {
  await loaded();
  const o = parseMake(args);
  if (!o.size && !o.art)
    throw new Problem("usage", "Say how wide the picture is with --size W, or what is found in it with --art W.");
  if (o.input === undefined) throw new Problem("usage", "Name the picture whose outline is wanted.");
  const bytes = await readInput(o.input);
  const name = basename(o.input);
  const t0 = performance.now();
  const decoding = decodePicture(bytes, name);
  // The picture is decoded on another thread meanwhile.
  warmUp();
  const raster = await decoding;
  const decode = performance.now() - t0;
  const asset = { sha: sha256(bytes), name, width: raster.width, height: raster.height };
  const job = startJob(FIRST_SHOP, { outcome: "cutout", asset, stock: { ...SHEET, ...o.stock } });
  configure(job, o, FIRST_SHOP);
  job.cuts = [];
  const files = onePicture(raster);
  const build = buildJob(checkBoard(job), { files, now: () => performance.now(), cell: 10 }, new Kept());
  if (build.problem) throw new Problem(build.problem.code, build.problem.message);
  const main = mainShapes(build)!;
  const report = {
    picture: { width: raster.width, height: raster.height },
    artwork: { x: 0, y: 0, width: main.art.width, height: main.art.height },
    outline: outlineReport(main),
    timings: Object.fromEntries(
      Object.entries({ decode, tone: build.timings.tone, outline: build.timings.outline }).map(([k, v]) => [
        k,
        Math.round(v * 10) / 10,
      ]),
    ),
  };
  await writeAll(o.out, [
    ...drawingFiles(build).map(({ name: file, text }) => ({ name: file, bytes: Buffer.from(text) })),
    { name: "report.json", bytes: Buffer.from(JSON.stringify(report, null, 1) + "\n") },
  ]);
  if (o.json) print(JSON.stringify(report));
  else
    print(
      `${found(report.outline)}, ${report.outline.nodes} nodes, off by ${report.outline.meanDeviation} mm on ` +
        `the mean; outline.svg and outline.dxf are in ${o.out}.`,
    );
  return 0;
}

/** What was traced, in words: 12 contours, or 3 centre lines in 1 contour. */
function found(o: { contours: number; lines?: number }): string {
  const count = (n: number, what: string) => `${n} ${what}${n === 1 ? "" : "s"}`;
  return o.lines === undefined
    ? count(o.contours, "contour")
    : `${count(o.lines, "centre line")} in ${count(o.contours, "contour")}`;
}
