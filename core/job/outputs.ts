import { writeStl } from "../height/stl.ts";
import { framingProgram, writePrograms } from "../output/gcode/writer.ts";
import { heightMap } from "../output/heightmap.ts";
import { greyTiff } from "../output/tiff.ts";
import { litView } from "../proof/light.ts";
import { type BuildResult, finished } from "./build.ts";
import { shortCode } from "./code.ts";
import { travelHeight } from "../toolpath/over.ts";
import { stockWords, stopWords, zeroPoint, zeroWords } from "./document.ts";
import { drawingFiles, mainHeights, mainTones } from "./drawings.ts";
import { atArmsLength } from "../output/armslength.ts";
import { backlit } from "../output/backlit.ts";
import type { HeightsProduct } from "../makings/product.ts";

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
  kind: "program" | "drawing" | "height map" | "picture" | "solid";
  content: string | Image | Uint8Array;
  /** of a program: how many lines it has, and which of the job's cuts it holds */
  program?: { lines: number; cuts: string[] };
}

/** mm that one grey step of the height map stands for, and the z of its black. */
export interface HeightScale {
  mmPerStep: number;
  black: number;
}

/** However few letters a controller shows, names have this many, so that they can be told apart. */
const LEAST_LETTERS = 8;

/** What is wanted of a job's files. */
interface Wanted {
  /** what their names begin with, where a job has more than one board */
  prefix?: string;
  /** the surface as a solid too: the wanted one, else what is left of the stock */
  solid?: boolean;
  /** the same surface as a TIFF of 16 bits that knows how large it is */
  tiff?: boolean;
  /** a program that goes round the bounds with the spindle off, and whether it waits at the corners */
  frame?: "through" | "stops";
  /** the day, such as 2026-11-27 */
  date?: string;
}

/**
 * Every file that a board's job writes, in one list for whoever writes them: programs, drawings, height map, picture.
 */
export function outputsOf(
  build: BuildResult,
  from: string,
  { prefix = "", solid = false, tiff = false, frame, date }: Wanted = {},
): { files: Output[]; heightScale: HeightScale } {
  const { job, proof } = build;
  const { thickness, material, zero } = job.stock;
  const on = build.cuts.filter((c) => c.cut.on);
  const cuts = on.map((c) => ({
    name: c.cut.name,
    cutter: c.cut.cutter,
    spindle: Number(c.values.spindle),
    toolpath: c.toolpath,
    stop: c.cut.stop && stopWords(c.cut.stop),
  }));
  const head = {
    job: job.name,
    ...(prefix && { board: job.board.name }),
    zero: zeroWords(zero),
    from,
    stock: stockWords(job.stock),
    code: shortCode([job, from]),
    ...job.naming,
    date,
    mostLetters: job.machine.mostLetters && Math.max(LEAST_LETTERS, job.machine.mostLetters - prefix.length),
    height: travelHeight(job.stock.clamps),
  };
  const programs = writePrograms(cuts, job.dialect, zeroPoint(job.stock), head);
  const moving = cuts.filter((c) => c.toolpath.kind.length > 0);
  if (frame && moving.length > 0)
    programs.unshift(framingProgram(moving, job.dialect, zeroPoint(job.stock), head, frame === "stops"));
  const { width, height } = proof;
  const map = heightMap(proof, -thickness);
  const lit = litView(finished(build), material, thickness, job.stock);
  const files: Output[] = [
    ...programs.map(({ name, text, lines, cuts }): Output => {
      return { name, kind: "program", content: text, program: { lines, cuts: cuts.map((i) => on[i].id) } };
    }),
    ...drawingFiles(build).map(({ name, text }): Output => ({ name, kind: "drawing", content: text })),
    { name: "proof.png", kind: "picture", content: { width, height, channels: 4, data: lit } },
    { name: "proof-height.png", kind: "height map", content: { width, height, channels: 1, data: map.data } },
  ];
  const art = mainHeights(build);
  if (art) files.push(...heightFiles(build, art));
  if (mainTones(build))
    files.push({ name: "arms-length.png", kind: "picture", content: atArmsLength(proof, material, job.stock) });
  if (solid)
    files.push({
      name: "surface.stl",
      kind: "solid",
      content: writeStl(art?.field ?? { ...proof, x0: 0, y0: 0 }, -thickness),
    });
  if (tiff) {
    const { width, height, cell, data } = art
      ? { ...art.field, data: heightMap(art.field, -thickness).data }
      : { ...proof, data: map.data };
    files.push({ name: "height.tif", kind: "height map", content: greyTiff({ width, height, data }, cell) });
  }
  for (const file of files) file.name = prefix + file.name;
  return { files, heightScale: { mmPerStep: map.mmPerStep, black: -thickness } };
}

/** What a surface writes besides: itself as a height map, and the sheet with its lamp on. */
function heightFiles({ job, proof }: BuildResult, art: HeightsProduct): Output[] {
  const { thickness } = job.stock;
  const { width, height } = art.field;
  const map: Image = { width, height, channels: 1, data: heightMap(art.field, -thickness).data };
  const files: Output[] = [{ name: "height.png", kind: "height map", content: map }];
  if (!art.litho) return files;
  const lit = backlit(proof, thickness, art.litho);
  const content: Image = { width: proof.width, height: proof.height, channels: 4, data: lit };
  return [...files, { name: "backlit.png", kind: "picture", content }];
}
