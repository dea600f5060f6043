import { buildJob, type BuildResult } from "@oaken/core/job/build";
import { boardJob, boardPrefixes, putBoard } from "@oaken/core/job/boards";
import { type Choice, chooseAll, type ChosenJob } from "@oaken/core/job/choose";
import type { JobDocument } from "@oaken/core/job/document";
import { outputsOf } from "@oaken/core/job/outputs";
import type { Files } from "@oaken/core/job/tools";
import { checkJob } from "@oaken/core/job/schema";
import { inspect } from "@oaken/core/inspect/inspect";
import { Kept } from "@oaken/core/kept";
import { loaded } from "@oaken/core/later";
import { Problem } from "@oaken/core/problem";
import type { Shop } from "@oaken/core/shop/shop";
import { formatTime } from "@oaken/core/units";
import { writeJobFile } from "@oaken/files/jobfile";
import { encoded, type OutputFile } from "@oaken/files/outputs";
import { configure } from "./configure.ts";
import { checkLock, filesOf, fixedBy, type Input, inputOf, isChoosing } from "./input.ts";
import { type MakeOptions, parseMake } from "./options.ts";
import { sheetOf } from "./sheet.ts";
import { shopFor } from "./shop-for.ts";
import { type BoardReport, choiceReport, type Made, reportOf, wholeReport } from "./report.ts";
import { writeAll } from "./write.ts";

/** What programs and sheets say that they come from. */
const FROM = "written by oaken make";

/** A setup sheet for each board. */
const sheetsOf = (
  boards: readonly Made[],
  files: readonly OutputFile[],
  prefixes: readonly string[],
  of: { from: string; date: string },
): Promise<OutputFile[]> =>
  Promise.all(
    boards.map(async ({ build, findings, files: own }, i) => {
      const proof = files.find((f) => f.name === `${prefixes[i]}proof.png`)!.bytes;
      const programs = own.flatMap((f) => (f.program ? [{ name: f.name, cuts: f.program.cuts }] : []));
      const bytes = await sheetOf(build, { findings, programs, proof, ...of });
      return { name: `${prefixes[i]}sheet.pdf`, bytes: Buffer.from(bytes) };
    }),
  );

/** Runs `oaken make`. @returns the exit code: 0 written, 3 stopped by a finding; bad input throws a Problem */
export async function make(args: string[], print: (line: string) => void): Promise<number> {
  await loaded();
  const o = parseMake(args);
  const shop = await shopFor(o);
  const t0 = performance.now();
  const input = await inputOf(o, shop);
  const own = boardIn(input.file.job, o.board);
  configure(own, o, shop);
  putBoard(input.file.job, own);
  input.file.job = checkJob(input.file.job, shop);
  checkLock(input);
  const files = await filesOf(input);
  const [raster] = input.decoded.values();
  const decode = performance.now() - t0;

  const { builds, choices } = chosenAndBuilt(input, own.board.id, files, o, shop);
  const { job } = input.file;
  const prefixes = boardPrefixes(job);
  const date = new Date().toISOString().slice(0, 10);
  const boards = builds.map((build, i): Made => ({
    build,
    findings: inspect({ build }),
    ...outputsOf(build, FROM, { prefix: prefixes[i], solid: o.stl, tiff: o.tiff, frame: o.frame, date }),
  }));
  const picture = raster ? { width: raster.width, height: raster.height } : null;
  const report = {
    ...wholeReport(boards.map((b): BoardReport => reportOf(b, picture, decode))),
    ...(choices.length > 0 && { choice: choiceReport(choices[0]) }),
  };
  const stops = boards.flatMap((b) => b.findings.filter((f) => f.severity === "stop"));
  const write = stops.length === 0 || o.force;
  const reportFile = () => ({ name: "report.json", bytes: Buffer.from(JSON.stringify(report, null, 1) + "\n") });
  const outputs = boards.flatMap((b) => b.files);
  if (write) {
    const files = await encoded(outputs);
    if (o.sheet) {
      const sheets = await sheetsOf(boards, files, prefixes, { from: FROM, date });
      files.push(...sheets);
      report.files = [...report.files, ...sheets.map((s) => s.name)];
    }
    await writeAll(o.out, [...files, { name: "job.json", bytes: Buffer.from(writeJobFile(input.file)) }, reportFile()]);
  } else await writeAll(o.out, [reportFile()]);

  if (o.json) print(JSON.stringify(report));
  else {
    for (const b of boards) for (const f of b.findings) print(`${f.severity}: ${onBoard(b.build, job)}${f.message}`);
    if (write) {
      for (const f of outputs) if (f.program) print(`${f.name}: ${f.program.lines} lines`);
      print(`${formatTime(report.seconds)} of machining; everything is in ${o.out}.`);
      for (const c of choices) print(`Cutters: ${c.reason}.`);
      if (stops.length > 0)
        print(
          "Written in spite of findings that stop, because of --force. Do not run these programs before " +
            "reading the findings.",
        );
    } else print("No programs were written. Mend what stops, or use --force to write all the same.");
  }
  return write ? 0 : 3;
}

/**
 * Chooses cutters for a board where nobody did, and builds every board. What was kept on the way is let go of:
 * it may be larger than all that is written.
 */
function chosenAndBuilt(
  input: Input,
  board: string,
  files: Files,
  o: MakeOptions,
  shop: Shop,
): { builds: BuildResult[]; choices: Choice[] } {
  const kept = new Kept();
  const own = boardJob(input.file.job, board);
  const chosen: ChosenJob = isChoosing(o, input)
    ? chooseAll(own, shop.cutters, files, kept, { fixed: fixedBy(o, input) })
    : { job: own, choices: [] };
  putBoard(input.file.job, chosen.job);
  const builds = input.file.job.boards.map(({ id }) => {
    const build = buildJob(boardJob(input.file.job, id), { files, now: () => performance.now(), cell: o.cell }, kept);
    if (build.problem) throw new Problem(build.problem.code, build.problem.message);
    return build;
  });
  return { builds, choices: chosen.choices };
}

/** Which board something is said of, where there is more than one. */
const onBoard = (build: BuildResult, job: JobDocument): string =>
  job.boards.length > 1 ? `${build.job.board.name}: ` : "";

/** The board that options are for: the first where none is named. @throws Problem `unknown-board` */
function boardIn(job: JobDocument, name: string | undefined) {
  const board = name === undefined ? job.boards[0] : job.boards.find((b) => b.id === name || b.name === name);
  if (!board) {
    const known = job.boards.map((b) => b.name).join(", ");
    throw new Problem("unknown-board", `This job has no board "${name}". It has ${known}.`);
  }
  return boardJob(job, board.id);
}
