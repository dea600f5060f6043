import { usualStepdown } from "../../cutters/feeds.ts";
import { ToolpathWriter } from "../../toolpath/toolpath.ts";
import { formatLength } from "../../units.ts";
import { type CutInputs, type HEIGHT_ART, type Left, type Note, type Planned } from "../kind.ts";
import { heightAsked, lowestOf, regionOf } from "../surface/asked.ts";
import { coarseSeconds, coarsely } from "../surface/coarse.ts";
import { stockNotes } from "../surface/notes.ts";
import { groundFor } from "../surface/ground.ts";
import { tipsOverLeft } from "../surface/standing.ts";
import { apartFor, cutRows, cutting, finding } from "../surface/passes.ts";
import { type Row, ringsOver, rowsOver, spiralOver, tipsAlong } from "../surface/rows.ts";
import type { FinishSettings } from "./finish.ts";

/** Shallower than this below the stock's top there is nothing to cut, mm. */
const TOUCH = 0.001;
/** Deeper than so many of the usual passes a finishing cutter into solid stock is asked too much. */
const DEEP = 1.5;

/** How long it would take, planned coarsely, s: as long whatever roughed the surface. */
export function estimate(inputs: CutInputs<typeof HEIGHT_ART>, s: FinishSettings): number {
  const { kept, reads, cutter, machine, stock } = inputs;
  return kept.of("finish-seconds", [reads.art, cutter, machine, stock, s], (art, c, m, board, own) => {
    const alone = { ...inputs, reads: { art }, cutter: c, machine: m, stock: board };
    return coarseSeconds(plan(coarsely(alone), own), alone);
  });
}

/** As much of a board as finishing may meet deep by the way, as a share of the surface. */
const SPARE = 0.01;

/** Where roughing left more above the surface than finishing takes at once. */
export function left(inputs: CutInputs<typeof HEIGHT_ART>): Left {
  const { art } = inputs.reads;
  const coarse = coarsely(inputs);
  const been = inputs.helpers
    .filter((h) => "leave" in h.settings)
    .map(({ cutter, settings }) => ({ cutter, leave: Number(settings.leave) }));
  const touching = been.length > 0 ? tipsOverLeft(coarse, been) : null;
  const most = DEEP * usualStepdown(inputs).value;
  const size = art.field.width * art.field.height * art.field.cell ** 2;
  const { grain, cutter, stock } = coarse;
  const rows = inputs.kept.of("finish-rows", [art, cutter, stock, grain], (of, c, board, apart) =>
    rowsOver(groundFor({ ...coarse, stock: board }, of, c), apart, 0),
  );
  let area = 0;
  for (const row of rows) {
    const stands = touching && tipsAlong(touching, row, row.lowest.length);
    row.lowest.forEach((low, i) => {
      if (Math.min(0, stands ? stands[i] : 0) - low > most) area += row.step * grain;
    });
  }
  return { area, missing: 0, spare: SPARE * size };
}

export function plan(inputs: CutInputs<typeof HEIGHT_ART>, s: FinishSettings): Planned {
  const { art } = inputs.reads;
  const w = new ToolpathWriter(s.feed, s.plunge, inputs.machine.rapid);
  const notes = stockNotes("Finish", inputs);
  const low = lowestOf(inputs);
  const stepdown = usualStepdown(inputs);
  if (inputs.helpers.length === 0 && -low > DEEP * stepdown.value) notes.push(intoSolid(-low, stepdown.value));
  const apart = apartFor(inputs, s);
  const sets = rowsFor(inputs, s, apart);
  const isCut = (row: Row) => (i: number) => row.lowest[i] < -TOUCH;
  sets.forEach((rows, k) => {
    cutRows(w, inputs, { ...s, apart, rows, isCut }, (share) => cutting(inputs)((k + share) / sets.length));
  });
  const region = regionOf(art.field, inputs.stock);
  return {
    toolpath: w.take(),
    notes,
    facts: { deepest: -low },
    asked: heightAsked(art.field, region, s.ridge),
    within: region,
    standsFor: apart / s.stepover,
  };
}

const intoSolid = (deep: number, stepdown: number): Note => ({
  code: "finish-into-solid",
  severity: "warning",
  message:
    `Finish goes ${formatLength(deep)} mm deep into stock that was not roughed; this cutter takes about ` +
    `${formatLength(stepdown)} mm at once. Rough it first.`,
  helper: { kind: "rough", label: "Rough it first" },
});

/** Sets of rows, one cut after the other. */
function rowsFor(inputs: CutInputs<typeof HEIGHT_ART>, s: FinishSettings, apart: number): Row[][] {
  const ground = groundFor(inputs, inputs.reads.art, inputs.cutter, s.overrun);
  const told = finding(inputs);
  switch (s.way) {
    case "rings":
      return [ringsOver(ground, apart, told)];
    case "spiral":
      return [spiralOver(ground, apart, told)];
    case "crossed":
      return [s.angle, s.second].map((angle, k) => rowsOver(ground, apart, angle, (share) => told((k + share) / 2)));
    case "lines":
      return [rowsOver(ground, apart, s.angle, told)];
  }
}
