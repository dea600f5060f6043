import { encode } from "fast-png";
import { inspect } from "@oaken/core/inspect/inspect";
import { buildJob, type BuildResult } from "@oaken/core/job/build";
import type { BoardJob } from "@oaken/core/job/document";
import { mainShapes } from "@oaken/core/job/drawings";
import { type Output, outputsOf } from "@oaken/core/job/outputs";
import { pieceSeen } from "@oaken/core/job/seen";
import type { SheetParts } from "@oaken/core/job/sheet";
import type { Files } from "@oaken/core/job/tools";
import type { Fonts } from "@oaken/core/output/sheet/paper";
import type { Kept } from "@oaken/core/kept";
import { Problem } from "@oaken/core/problem";
import type { Surface } from "@oaken/core/proof/surface";
import type { PathBox, WrittenBoard, WrittenFile, Writing } from "./messages.ts";

/** Cells of the proof that is looked at closely, and written. */
export const FINE_CELLS = 1_500_000;

/**
 * All that a board's job writes, with what is found in it.
 * @throws Problem where it cannot be built
 */
export function writtenOf(job: BoardJob, files: Files, writing: Writing, kept: Kept): WrittenBoard {
  const build = buildJob(job, { files, cells: writing.cells ?? FINE_CELLS }, kept);
  if (build.problem) throw new Problem(build.problem.code, build.problem.message);
  const ink = mainShapes(build)?.made.product.ink;
  return {
    files: outputsOf(build, writing.from, writing).files.map((file) => writtenFile(file, build)),
    findings: inspect({ build }),
    bounds: cutBounds(build.proof),
    rings: ink ? { xy: Float32Array.from(ink.xy), starts: ink.starts } : null,
  };
}

function writtenFile({ content, program, ...file }: Output, { cuts }: BuildResult): WrittenFile {
  const bytes = bytesOf(content);
  if (!program) return { ...file, bytes };
  const own = cuts.filter((c) => program.cuts.includes(c.id));
  const seconds = own.reduce((sum, c) => sum + c.seconds, 0);
  return { ...file, bytes, program: { ...program, seconds, box: boxRound(own.map((c) => c.figures)) } };
}

const boxRound = (boxes: readonly PathBox[]): PathBox => ({
  minX: Math.min(...boxes.map((b) => b.minX)),
  maxX: Math.max(...boxes.map((b) => b.maxX)),
  minY: Math.min(...boxes.map((b) => b.minY)),
  maxY: Math.max(...boxes.map((b) => b.maxY)),
  minZ: Math.min(...boxes.map((b) => b.minZ)),
});

/**
 * The setup sheet of a board, as PDF.
 * @throws Problem where it cannot be built
 */
export async function sheetOf(
  job: BoardJob,
  files: Files,
  writing: Writing,
  programs: SheetParts["programs"],
  tools: { kept: Kept; fonts: Fonts },
): Promise<Uint8Array> {
  const build = buildJob(job, { files, cells: writing.cells ?? FINE_CELLS }, tools.kept);
  if (build.problem) throw new Problem(build.problem.code, build.problem.message);
  const seen = pieceSeen(build);
  // What makes papers is loaded when the first is wanted.
  const { setupSheet } = await import("@oaken/core/job/sheet");
  const png = (step: Parameters<typeof smaller>[0]) => encode({ ...smaller(step), channels: 3, depth: 8 });
  const findings = inspect({ build });
  return setupSheet(build, { ...writing, findings, programs, proof: png(seen), png, fonts: tools.fonts });
}

/** A picture on paper is no wider than this, pixels. */
const ON_PAPER = 640;

/** A picture in fewer pixels, each the mean of a square of them, without its transparency. */
function smaller({ width, height, data }: { width: number; height: number; data: Uint8ClampedArray }) {
  const side = Math.max(1, Math.ceil(Math.max(width, height) / ON_PAPER));
  const [w, h] = [Math.max(1, Math.floor(width / side)), Math.max(1, Math.floor(height / side))];
  const out = new Uint8Array(3 * w * h);
  for (let j = 0; j < h; j++)
    for (let i = 0; i < w; i++)
      for (let c = 0; c < 3; c++) {
        let sum = 0;
        for (let b = 0; b < side; b++)
          for (let a = 0; a < side; a++) sum += data[4 * ((j * side + b) * width + i * side + a) + c];
        out[3 * (j * w + i) + c] = sum / (side * side);
      }
  return { width: w, height: h, data: out };
}

/** A file's bytes: a text as it is, a picture as PNG. */
function bytesOf(content: Output["content"]): Uint8Array {
  if (typeof content === "string") return new TextEncoder().encode(content);
  if (content instanceof Uint8Array) return content;
  const { width, height, channels, data } = content;
  const samples = data instanceof Uint16Array ? data : new Uint8Array(data.buffer, data.byteOffset, data.byteLength);
  return encode({ width, height, channels, data: samples, depth: data instanceof Uint16Array ? 16 : 8 });
}

/** Bounds of everything that was cut, mm. */
function cutBounds(s: Surface): WrittenBoard["bounds"] {
  let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let at = 0; at < s.by.length; at++) {
    if (!s.by[at]) continue;
    const i = at % s.width;
    const j = (at - i) / s.width;
    x0 = Math.min(x0, i);
    x1 = Math.max(x1, i + 1);
    y0 = Math.min(y0, j);
    y1 = Math.max(y1, j + 1);
  }
  return x1 < 0 ? null : { x0: x0 * s.cell, x1: x1 * s.cell, y0: y0 * s.cell, y1: y1 * s.cell };
}
