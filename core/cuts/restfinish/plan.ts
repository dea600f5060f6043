import { ToolpathWriter } from "../../toolpath/toolpath.ts";
import { type CutInputs, type HEIGHT_ART, type Planned } from "../kind.ts";
import { heightAsked, regionOf } from "../surface/asked.ts";
import { groundFor } from "../surface/ground.ts";
import { apartFor, cutRows, cutting, finding } from "../surface/passes.ts";
import { type Row, rowsOver, tipsAlong } from "../surface/rows.ts";
import { tipsOverLeft } from "../surface/standing.ts";
import { type RestFinishSettings, restfinish } from "./restfinish.ts";

export function plan(inputs: CutInputs<typeof HEIGHT_ART>, s: RestFinishSettings): Planned {
  const { art } = inputs.reads;
  const w = new ToolpathWriter(s.feed, s.plunge, inputs.machine.rapid);
  const region = regionOf(art.field, inputs.stock);
  if (!inputs.target) return { toolpath: w.take(), notes: [], facts: {}, within: region };
  const before = [inputs.target, ...inputs.earlier.filter((e) => e.kind === restfinish.kind)];
  const touching = tipsOverLeft(
    inputs,
    before.map(({ cutter }) => ({ cutter, leave: 0 })),
  );
  const apart = apartFor(inputs, s);
  const rows = rowsOver(groundFor(inputs, art, inputs.cutter, s.overrun), apart, s.angle, finding(inputs));
  const stands = new Map(rows.map((row) => [row, tipsAlong(touching, row, row.lowest.length)]));
  const isCut = (row: Row) => (i: number) => stands.get(row)![i] - row.lowest[i] > s.above;
  cutRows(w, inputs, { ...s, apart, rows, isCut }, cutting(inputs));
  let area = 0;
  for (const row of rows) {
    const isLeft = isCut(row);
    for (let i = 0; i < row.lowest.length; i++) if (isLeft(i)) area += row.step * apart;
  }
  return {
    toolpath: w.take(),
    notes: [],
    facts: { area },
    standsFor: apart / s.stepover,
    asked: heightAsked(art.field, region, s.ridge),
    within: region,
  };
}
