import { writeDxf } from "../output/dxf.ts";
import { writeSvg } from "../output/svg.ts";
import type { BuildResult } from "./build.ts";

/** The outline as drawings: SVG and DXF, mm. */
export function drawingFiles({ job, chain }: Pick<BuildResult, "job" | "chain">): { name: string; text: string }[] {
  if (!chain) return [];
  const art = { x: chain.place.x0, y: chain.place.y0, width: chain.place.width, height: chain.place.height };
  return [
    { name: "outline.svg", text: writeSvg(chain.result.shape, art, chain.lines) },
    { name: "outline.dxf", text: writeDxf(chain.result.shape, art.x, art.y, job.drawing, chain.lines) },
  ];
}
