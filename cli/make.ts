import { randomBytes } from "node:crypto";
import { mkdir, readFile, rename, stat, unlink, writeFile } from "node:fs/promises";
import { basename, join } from "node:path";
import { parseCutter } from "@oaken/core/cutters/rack";
import { Kept } from "@oaken/core/kept";
import { outputsOf } from "@oaken/core/job/outputs";
import { materialById } from "@oaken/core/cutters/materials";
import { inspect } from "@oaken/core/inspect/inspect";
import { type Files } from "@oaken/core/job/tools";
import { makingKind } from "@oaken/core/makings/register";
import { buildJob } from "@oaken/core/job/build";
import { type Chosen, drawingMakings, outcomeById, startJob, usualClearing } from "@oaken/core/job/outcomes";
import { addCombination, addDrawing } from "@oaken/core/job/edit";
import { aboutOf } from "@oaken/core/job/graph";
import { checkJob } from "@oaken/core/job/schema";
import { dialectById } from "@oaken/core/output/gcode/dialects";
import type { Raster } from "@oaken/core/picture/raster";
import { warmUp } from "@oaken/core/outline/warm";
import { Problem } from "@oaken/core/problem";
import { formatTime } from "@oaken/core/units";
import { decodePicture } from "@oaken/files/decode";
import { MAX_BYTES } from "@oaken/files/decoder/kinds";
import { drawingOf } from "@oaken/files/drawing";
import { sha256 } from "@oaken/files/sha256";
import { type JobFile, readJobFile, writeJobFile } from "@oaken/files/jobfile";
import { encoded } from "@oaken/files/outputs";
import { configure } from "./configure.ts";
import { type MakeOptions, parseMake } from "./options.ts";
import { reportOf } from "./report.ts";

/** Runs `oaken make`. @returns the exit code: 0 written, 3 stopped by a finding; bad input throws a Problem */
export async function make(args: string[], print: (line: string) => void): Promise<number> {
  const o = parseMake(args);
  const bytes = await readInput(o.input);
  const isJob = bytes[0] === 0x7b || /\.json$/i.test(o.input);
  const t0 = performance.now();
  let file: JobFile;
  let decoded = null;
  if (isJob) {
    file = readJobFile(bytes.toString("utf8"));
  } else if (o.exact) file = fromDrawing(bytes, o);
  else {
    const name = basename(o.input);
    const decoding = decodePicture(bytes, name);
    // The picture is decoded on another thread meanwhile.
    warmUp();
    decoded = await decoding;
    const sha = sha256(bytes);
    const { width, height } = decoded;
    const job = startJob(o.as, { sha, name, width, height }, { ...o.stock }, chosen(o));
    file = { job, assets: new Map([[sha, { name, bytes }]]) };
  }
  if (o.with !== undefined || o.offset !== undefined) await combineWith(file, o);
  configure(file.job, o);
  const job = checkJob(file.job);
  dialectById(job.dialect);
  materialById(job.stock.material);
  const assets = job.nodes.flatMap((n) => (n.asset ? [{ ...n.asset, is: makingKind(n.kind).file }] : []));
  if (assets.length === 0) throw new Problem("no-picture", "This job has no picture. Add one in the application.");
  const bytesOf = (sha: string) => file.assets.get(sha)!.bytes;
  const rasters = new Map<string, Raster>();
  for (const a of assets)
    if (a.is !== "drawing" && !rasters.has(a.sha))
      rasters.set(a.sha, decoded ?? (await decodePicture(bytesOf(a.sha), a.name)));
  const files: Files = {
    picture: (sha) => rasters.get(sha)!,
    drawing: (sha) => Buffer.from(bytesOf(sha)).toString("utf8"),
  };
  const [raster] = rasters.values();
  const decode = performance.now() - t0;

  const build = buildJob(job, { files, now: () => performance.now(), cell: o.cell }, new Kept());
  if (build.problem) throw new Problem(build.problem.code, build.problem.message);
  const findings = inspect({ build });
  const stops = findings.filter((f) => f.severity === "stop");
  const write = stops.length === 0 || o.force;
  const outputs = outputsOf(build, "written by oaken make");
  const report = reportOf(
    build,
    findings,
    outputs,
    raster ? { width: raster.width, height: raster.height } : null,
    decode,
  );
  const reportFile = { name: "report.json", bytes: Buffer.from(JSON.stringify(report, null, 1) + "\n") };
  if (write)
    await writeAll(o.out, [
      ...(await encoded(outputs.files)),
      { name: "job.json", bytes: Buffer.from(writeJobFile(file)) },
      reportFile,
    ]);
  else await writeAll(o.out, [reportFile]);

  if (o.json) print(JSON.stringify(report));
  else {
    for (const f of findings) print(`${f.severity}: ${f.message}`);
    if (write) {
      for (const f of outputs.files) if (f.program) print(`${f.name}: ${f.program.lines} lines`);
      print(`${formatTime(build.seconds)} of machining; everything is in ${o.out}.`);
      if (stops.length > 0)
        print(
          "Written in spite of findings that stop, because of --force. Do not run these programs before " +
            "reading the findings.",
        );
    } else print("No programs were written. Mend what stops, or use --force to write all the same.");
  }
  return write ? 0 : 3;
}

/** The cutters that the options name. */
const chosen = (o: MakeOptions): Chosen => ({
  main: o.cutter.map(parseCutter),
  clear: o.clear.length === 0 ? usualClearing(outcomeById(o.as)) : o.clear.filter((c) => c !== "none").map(parseCutter),
  rest: o.rest.map(parseCutter),
});

/** A drawing as an asset: its size is found out when it is read. */
function drawingAsset(bytes: Buffer, name: string) {
  drawingOf(bytes, name);
  return { sha: sha256(bytes), name, width: 1, height: 1 };
}

/** A job of a drawing's own shapes. */
function fromDrawing(bytes: Buffer, o: MakeOptions): JobFile {
  const name = basename(o.input);
  const asset = drawingAsset(bytes, name);
  const job = startJob(o.as, asset, { ...o.stock }, chosen(o), drawingMakings);
  return { job, assets: new Map([[asset.sha, { name, bytes }]]) };
}

/** The shapes that are cut combined with those of another drawing, or with their edges moved. */
async function combineWith({ job, assets }: JobFile, o: MakeOptions): Promise<void> {
  const first = aboutOf(job, job.cuts[0]?.id ?? "", "shapes");
  if (!first) throw new Problem("no-outline", "This job has no shapes to combine.");
  let second: string | undefined;
  if (o.with !== undefined) {
    const bytes = await readInput(o.with);
    const asset = drawingAsset(bytes, basename(o.with));
    assets.set(asset.sha, { name: asset.name, bytes });
    second = addDrawing(job, asset);
  }
  const combination = addCombination(job, first.id, second);
  for (const c of job.cuts) c.reads = c.reads.map((r) => (r === first.id ? combination : r));
}

export async function readInput(path: string): Promise<Buffer> {
  const missing = new Problem("no-file", `${path} cannot be opened. Check the name and that you may read it.`);
  const info = await stat(path).catch(() => {
    throw missing;
  });
  if (info.isDirectory()) throw new Problem("no-file", `${path} is a folder. Name a picture or a job file in it.`);
  if (info.size > 2 * MAX_BYTES)
    throw new Problem(
      "file-too-large",
      `${path} has ${Math.round(info.size / 2 ** 20)} MB, more than any picture or job taken in here.`,
    );
  return readFile(path).catch(() => {
    throw missing;
  });
}

/** What the last run wrote into a folder and this one may not write again: its report says. */
async function writtenBefore(dir: string): Promise<string[]> {
  try {
    const report = JSON.parse(await readFile(join(dir, "report.json"), "utf8"));
    const programs: unknown[] = (report.cuts ?? []).map((c: { program?: unknown }) => c.program);
    const names: unknown[] = [...(report.files ?? []), ...programs];
    // Only names in this very folder: the report may have been written by anyone.
    return names.filter((n): n is string => typeof n === "string" && /^[^/\\]+\.[a-z]+$/.test(n));
  } catch {
    return [];
  }
}

/** Writes every file under a passing name first, then renames: a reader never sees half a program. Old programs go. */
export async function writeAll(dir: string, files: { name: string; bytes: Buffer }[]): Promise<void> {
  const suffix = `.${randomBytes(4).toString("hex")}.part`;
  const written: string[] = [];
  try {
    await mkdir(dir, { recursive: true });
    const before = await writtenBefore(dir);
    for (const f of files) {
      const path = join(dir, f.name + suffix);
      written.push(path);
      await writeFile(path, f.bytes);
    }
    const keep = new Set(files.map((f) => f.name));
    for (const old of before) if (!keep.has(old)) await unlink(join(dir, old)).catch(() => {});
    for (const f of files) await rename(join(dir, f.name + suffix), join(dir, f.name));
  } catch (e) {
    for (const path of written) await unlink(path).catch(() => {});
    const code = (e as NodeJS.ErrnoException).code;
    const why =
      code === "ENOSPC"
        ? "the disk is full"
        : code === "EACCES" || code === "EPERM" || code === "EROFS"
          ? "writing there is not allowed"
          : code === "ENOTDIR" || code === "EEXIST"
            ? "it is not a folder"
            : String(code ?? (e as Error).message);
    throw new Problem("cannot-write", `${dir} could not be written: ${why}. Nothing half-written was left.`);
  }
}
