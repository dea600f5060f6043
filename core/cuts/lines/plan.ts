import { profileOf } from "../../cutters/profile.ts";
import { rectangle } from "../../geometry/shape.ts";
import type { GreyProduct } from "../../makings/product.ts";
import { ToolpathWriter } from "../../toolpath/toolpath.ts";
import { formatLength } from "../../units.ts";
import { type CutContext, type CutInputs, type Note, type Planned, type TONE_ART } from "../kind.ts";
import { drawDots, drawLines } from "./draw.ts";
import { lightMap } from "./light.ts";
import { type Box, parallels, rings, type Sampling, spiral, type Way } from "./ways.ts";
import { type LinesSettings, grooveOf, reachOf, percent, narrowest } from "./lines.ts";

export function plan(inputs: CutInputs<typeof TONE_ART>, s: LinesSettings): Planned {
  const { art } = inputs.reads;
  const w = new ToolpathWriter(s.feed, s.plunge, inputs.machine.rapid);
  const groove = grooveOf(inputs, s.depth);
  const { least, most } = reachOf(groove, s);
  const facts = { least, most, spacing: s.spacing };
  const box = boxOf(art, inputs, s.spacing / 2);
  if (!box) return { toolpath: w.take(), notes: [offBoard(art, inputs)], facts, tones: facts };
  const light = lightMap(art, s.spacing / 3);
  const wanted = (x: number, y: number): number => least + (most - least) * light.at(x, y);
  if (s.shape === "dots") drawDots(w, box, groove, s, wanted);
  else for (const set of setsOf(box, s)) drawLines(w, box, groove, s, { ways: set, wanted, progress: inputs.progress });
  return {
    toolpath: w.take(),
    notes: notesOn(inputs, s, { least, most }),
    facts,
    tones: facts,
    within: rectangle(box.x0 - s.spacing / 2, box.y0 - s.spacing / 2, box.x1 + s.spacing / 2, box.y1 + s.spacing / 2),
  };
}

/** The part of the board that a picture covers, less half a spacing; null where nothing of it lies there. */
function boxOf({ picture: { place } }: GreyProduct, { stock }: CutContext, less: number): Box | null {
  const box = {
    x0: Math.max(0, place.x0) + less,
    y0: Math.max(0, place.y0) + less,
    x1: Math.min(stock.width, place.x0 + place.width) - less,
    y1: Math.min(stock.height, place.y0 + place.height) - less,
  };
  return box.x0 < box.x1 && box.y0 < box.y1 ? box : null;
}

const offBoard = ({ picture: { place } }: GreyProduct, { stock }: CutContext): Note => ({
  code: "nothing-on-the-board",
  severity: "stop",
  message:
    `Of a picture of ${formatLength(place.width)} × ${formatLength(place.height)} mm no line fits on this stock of ` +
    `${formatLength(stock.width)} × ${formatLength(stock.height)} mm. Move or scale the picture.`,
});

function notesOn(c: CutContext, s: LinesSettings, reach: { least: number; most: number }): Note[] {
  const notes: Note[] = [];
  if (c.stock.coat === 0)
    notes.push({
      code: "no-paint",
      severity: "warning",
      message:
        "Shaded lines show by what they bare under a coat of paint, and this stock is not painted. Paint it on its " +
        "slip, and say how thick the paint is.",
    });
  if (s.depth <= c.stock.coat)
    notes.push({
      code: "not-through-paint",
      severity: "stop",
      message:
        `Grooves ${formatLength(s.depth)} mm deep do not reach through ${formatLength(c.stock.coat)} mm of paint. ` +
        "Go deeper, or lay the lines farther apart.",
    });
  else if (reach.most - reach.least < LEAST_RANGE)
    notes.push({
      code: "few-tones",
      severity: "warning",
      message:
        `This cutter bares ${percent(reach.least)} to ${percent(reach.most)} at this spacing: too little for the eye ` +
        "to see a picture. Lay the lines farther apart, or use a finer or a wider cutter.",
    });
  const { height, r } = profileOf(c.cutter);
  const top = 2 * r(Math.min(s.depth, height));
  if (top >= narrowest(s))
    notes.push({
      code: "paint-all-gone",
      severity: "warning",
      message:
        `At their deepest grooves are ${formatLength(top)} mm wide and lie ${formatLength(narrowest(s))} mm apart: ` +
        "no paint stays between them. Go less deep.",
    });
  return notes;
}
/** A smaller range of shares shows no picture. */
const LEAST_RANGE = 0.3;

function setsOf(box: Box, s: LinesSettings): Way[][] {
  const sampling: Sampling = { spacing: s.spacing, step: s.spacing / STEPS };
  if (s.shape === "rings") return [rings(box, sampling)];
  if (s.shape === "spiral") return [spiral(box, sampling)];
  if (s.shape === "waves") return [parallels(box, s.angle, sampling, { swing: s.swing, length: s.wave })];
  const first = parallels(box, s.angle, sampling);
  return s.crossed ? [first, parallels(box, s.second, sampling)] : [first];
}
/** Places along a line for each spacing. */
const STEPS = 4;
