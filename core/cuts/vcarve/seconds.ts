import { profileOf } from "../../cutters/profile.ts";
import type { Machine } from "../../cutters/machine.ts";
import type { Trail } from "../../geometry/trail.ts";
import { moveSeconds } from "../../toolpath/time.ts";
import { RAPID, ToolpathWriter } from "../../toolpath/toolpath.ts";
import type { Reach } from "../area/reached.ts";
import { type Left, leftAt, liftSeconds, surveyIn } from "../area/survey.ts";
import type { CarveInputs } from "./reads.ts";
import { clearedBy, floorStep, openersOf } from "./rest.ts";
import { partsIn, type Pass, passesOf, type Strokes, trailsOf } from "./strokes.ts";
import { carveAlone } from "./trails.ts";
import type { VcarveSettings } from "./vcarve.ts";

/** Rings over the floor that are looked at; the others are taken to be like them. */
const LOOKED_AT = 5;
/** Of so many clearing cutters it is kept what they leave: a rack has about as many. */
const BESIDE = 16;
/** Way from the end of one stroke to the beginning of the next, in floors' depths: the order travels little. */
const TRAVEL = 3;
/** Short stretches over a floor begin and end at rest: each costs so much more, s. */
const STARTS = 0.16;

/** How long a carve would take: its strokes as they are, and of the floor the stretches that are left on some rings. */
export function carveSeconds(inputs: CarveInputs, s: VcarveSettings, strokes: Strokes): number {
  const { c, floor, rho } = strokes;
  const passes = passesOf(c, s, floor, profileOf(inputs.cutter));
  const along = inputs.kept.of(
    "stroke-seconds",
    [trailsOf(inputs, strokes), floor, passes, s.feed, s.plunge, inputs.machine],
    strokeSeconds,
  );
  if (c.widest <= rho) return along;
  const { length, runs } = floorLeft(inputs, s, strokes);
  return along + passes.length * ((60 * length) / s.feed + runs * STARTS);
}

/** Along every stroke as it will be run, pass by pass, with a lift for each, s. */
function strokeSeconds(
  trails: readonly Trail[],
  floor: number,
  passes: readonly Pass[],
  feed: number,
  plunge: number,
  machine: Machine,
): number {
  const w = new ToolpathWriter(feed, plunge, machine.rapid);
  const parts = passes.flatMap((pass) => partsIn(trails, pass, passes));
  for (const t of parts) carveAlone(w, t);
  const path = w.take();
  // The order is not known yet: ways from stroke to stroke are a usual lift each.
  const cutting = moveSeconds(path, machine).reduce((sum, t, i) => (path.kind[i] === RAPID ? sum : sum + t), 0);
  return cutting + parts.length * liftSeconds(machine, floor / 2, TRAVEL * floor);
}

/** What the pointed cutter has to do on the floor beyond the feet of its walls. */
function floorLeft(inputs: CarveInputs, s: VcarveSettings, strokes: Strokes): Left {
  const { region, c, rho } = strokes;
  const step = floorStep(s, profileOf(inputs.cutter));
  const openers = openersOf(inputs, rho).filter((q) => q.from < c.widest);
  if (openers.length === 0) {
    const survey = surveyIn(inputs, region);
    const out = { length: 0, runs: 0 };
    for (let d = rho + step; d < c.widest; d += step) {
      out.length += survey.length(d);
      out.runs += survey.curves(d);
    }
    return out;
  }
  // The finest reaches wherever the others do.
  const finest = openers.reduce((p, q) => (q.from < p.from ? q : p));
  return inputs.kept.of("floor-left", [strokes, step, finest], leftBeside, BESIDE);
}

/** What is left of the floor between the walls and where a clearing cutter came, from some of the rings over it. */
function leftBeside({ c, rho }: Strokes, step: number, opener: Reach): Left {
  const { cleared, radius } = clearedBy([opener], c, rho);
  const rings = Math.floor((Math.min(c.widest, rho + radius) - rho) / step);
  const looked = Math.min(rings, LOOKED_AT);
  const out = { length: 0, runs: 0 };
  for (let q = 0; q < looked; q++) {
    const d = rho + step * (1 + (q + 0.5) * (rings / looked) - 0.5);
    const left = leftAt(c, d, (x, y) => cleared!(x, y, d, 0));
    out.length += (left.length * rings) / looked;
    out.runs += (left.runs * rings) / looked;
  }
  return out;
}
