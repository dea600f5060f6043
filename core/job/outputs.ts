import { materialById } from "../cutters/materials.ts";
import { dialectById } from "../output/gcode/dialects.ts";
import { writePrograms } from "../output/gcode/writer.ts";
import { heightMap } from "../output/heightmap.ts";
import { litView } from "../proof/light.ts";
import { type BuildResult, piece } from "./build.ts";
import { stopWords, zeroPoint, zeroWords } from "./document.ts";
import { drawingFiles } from "./drawings.ts";

/** Samples of a picture, row by row: whoever writes the file encodes them as PNG. */
export interface Image {
  width: number;
  height: number;
  /** 4: red, green, blue, alpha of 8 bits · 1: grey of 16 bits */
  channels: 1 | 4;
  data: Uint8ClampedArray | Uint16Array;
}

/** A file that a job writes. */
export interface Output {
  name: string;
  kind: "program" | "drawing" | "height map" | "picture";
  content: string | Image;
  /** of a program: how many lines it has, and which of the job's cuts it holds */
  program?: { lines: number; cuts: string[] };
}

/** mm that one grey step of the height map stands for, and the z of its black. */
export interface HeightScale {
  mmPerStep: number;
  black: number;
}

/** Every file that a job writes, in one list for whoever writes them: programs, drawings, height map, picture. */
export function outputsOf(build: BuildResult, from: string): { files: Output[]; heightScale: HeightScale } {
  const { job, proof } = build;
  const { thickness, paint, material, zero } = job.stock;
  const on = build.cuts.filter((c) => c.cut.on);
  const programs = writePrograms(
    on.map((c) => ({
      name: c.cut.name,
      cutter: c.cut.cutter,
      spindle: Number(c.values.spindle),
      toolpath: c.toolpath,
      stop: c.cut.stop && stopWords(c.cut.stop),
    })),
    dialectById(job.dialect),
    zeroPoint(job.stock),
    { job: job.name, zero: zeroWords(zero), from },
  );
  const { width, height } = proof;
  const map = heightMap(proof, -thickness);
  const lit = litView(piece(build), materialById(material), thickness, paint);
  const files: Output[] = [
    ...programs.map(({ name, text, lines, cuts }): Output => {
      return { name, kind: "program", content: text, program: { lines, cuts: cuts.map((i) => on[i].id) } };
    }),
    ...drawingFiles(build).map(({ name, text }): Output => ({ name, kind: "drawing", content: text })),
    { name: "proof.png", kind: "picture", content: { width, height, channels: 4, data: lit } },
    { name: "proof-height.png", kind: "height map", content: { width, height, channels: 1, data: map.data } },
  ];
  return { files, heightScale: { mmPerStep: map.mmPerStep, black: -thickness } };
}
