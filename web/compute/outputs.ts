import { encode } from "fast-png";
import { drawingFiles } from "@oaken/core/job/drawings";
import type { BuildResult } from "@oaken/core/job/build";
import { stopWords, zeroPoint, zeroWords } from "@oaken/core/job/document";
import { dialectById } from "@oaken/core/output/gcode/dialects";
import { writePrograms } from "@oaken/core/output/gcode/writer";
import { heightMap } from "@oaken/core/output/heightmap";
import type { WrittenFile } from "./messages.ts";

/** Every file a job gives, in memory: programs, drawings, height map. */
export function outputFiles(r: BuildResult, from: string): WrittenFile[] {
  const { job, proof } = r;
  const text = (t: string) => new TextEncoder().encode(t);
  const on = r.cuts.filter((c) => c.cut.on);
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
  const files: WrittenFile[] = programs.map((p) => ({
    name: p.name,
    kind: "program",
    bytes: text(p.text),
    lines: p.lines,
    cuts: p.cuts.map((i) => r.cuts.indexOf(on[i])),
  }));
  for (const d of drawingFiles(r)) files.push({ name: d.name, kind: "drawing", bytes: text(d.text) });
  const map = heightMap(proof, -job.stock.thickness);
  files.push({
    name: "proof-height.png",
    kind: "height map",
    bytes: encode({ width: proof.width, height: proof.height, data: map.data, channels: 1, depth: 16 }),
  });
  return files;
}
