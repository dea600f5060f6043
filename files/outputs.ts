import { materialById } from "@oaken/core/cutters/materials";
import { drawingFiles } from "@oaken/core/job/drawings";
import { type BuildResult, piece } from "@oaken/core/job/build";
import { stopWords, zeroPoint, zeroWords } from "@oaken/core/job/document";
import { dialectById } from "@oaken/core/output/gcode/dialects";
import { writePrograms, type Program } from "@oaken/core/output/gcode/writer";
import { heightMap } from "@oaken/core/output/heightmap";
import { litView } from "@oaken/core/proof/light";
import { encodeGrey16, encodePng } from "./encode.ts";

/** A file of a finished job, ready to be saved. */
export interface OutputFile {
  name: string;
  bytes: Buffer;
}

export interface Outputs {
  programs: Program[];
  files: OutputFile[];
  /** mm that one grey step of proof-height.png stands for, and the z of its black */
  heightScale: { mmPerStep: number; black: number };
}

/** The outline's drawings as files. */
export const drawings = (build: Pick<BuildResult, "job" | "chain">): OutputFile[] =>
  drawingFiles(build).map((d) => ({ name: d.name, bytes: Buffer.from(d.text) }));

/** Programs, drawings and pictures of the proof. */
export async function makeOutputs(build: BuildResult, from: string): Promise<Outputs> {
  const { job, proof } = build;
  const on = build.cuts.filter((c) => c.cut.on);
  const programs = writePrograms(
    on.map((c) => ({
      name: c.cut.name,
      cutter: c.cut.cutter,
      spindle: c.values.spindle as number,
      toolpath: c.toolpath,
      stop: c.cut.stop && stopWords(c.cut.stop),
    })),
    dialectById(job.dialect),
    zeroPoint(job.stock),
    { job: job.name, zero: zeroWords(job.stock.zero), from },
  );
  const files: OutputFile[] = programs.map((p) => ({ name: p.name, bytes: Buffer.from(p.text) }));
  files.push(...drawings(build));
  files.push({
    name: "proof.png",
    bytes: await encodePng(
      litView(piece(build), materialById(job.stock.material), job.stock.thickness, job.stock.paint),
      proof.width,
      proof.height,
    ),
  });
  const map = heightMap(proof, -job.stock.thickness);
  files.push({ name: "proof-height.png", bytes: await encodeGrey16(map.data, proof.width, proof.height) });
  return { programs, files, heightScale: { mmPerStep: map.mmPerStep, black: -job.stock.thickness } };
}
