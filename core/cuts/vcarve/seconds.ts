import { profileOf } from "../../cutters/profile.ts";
import type { Machine } from "../../cutters/machine.ts";
import { type Clearance, inset } from "../../geometry/clearance/clearance.ts";
import { ringCount, ringsLength } from "../../geometry/rings.ts";
import type { Trail } from "../../geometry/trail.ts";
import { sampledSeconds } from "../../toolpath/sampled.ts";
import { NEAR, ToolpathWriter } from "../../toolpath/toolpath.ts";
import type { Reach } from "../area/reached.ts";
import { ringSpeed } from "../area/seconds.ts";
import { type Left, leftAt, liftSeconds, surveyIn } from "../area/survey.ts";
import type { CarveInputs } from "./reads.ts";
import { clearedBy, floorStep, openersOf } from "./rest.ts";
import { partsIn, type Pass, passesOf, type Strokes, trailsOf } from "./strokes.ts";
import { carveAlone } from "./trails.ts";
import type { VcarveSettings } from "./vcarve.ts";

/** A ring that is looked at: from the foot of the walls (0) to the last (1); and what share of all it stands for. */
interface Look {
  at: number;
  share: number;
}

/**
 * Rings over the floor that are looked at for all of them, where those are few and where they are many: by Gauss and
 * Legendre (M. Abramowitz and I. A. Stegun, "Handbook of Mathematical Functions", 1964, table 25.4).
 */
const LOOKS: Record<"few" | "many", Look[]> = {
  few: looksOf([Math.sqrt(0.6), 5 / 9], [0, 8 / 9]),
  many: looksOf([0.9061798459, 0.2369268851], [0.5384693101, 0.4786286705], [0, 0.5688888889]),
};
/** More than so many rings are many. */
const FEW_RINGS = 10;

/** @param half abscissas and weights over −1 to 1, of each two with either sign only the one */
function looksOf(...half: [at: number, weight: number][]): Look[] {
  const both = half.flatMap(([at, weight]) =>
    at === 0
      ? [[at, weight]]
      : [
          [-at, weight],
          [at, weight],
        ],
  );
  return both.map(([at, weight]) => ({ at: (1 + at) / 2, share: weight / 2 }));
}

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
  return along + passes.length * (length / floorSpeed(inputs, s, c, rho) + runs * STARTS);
}

/** How fast rings over the floor are run between their ends, corners and all, as those at its edge are; mm/s. */
function floorSpeed(inputs: CarveInputs, s: VcarveSettings, c: Clearance, rho: number): number {
  const { rings } = inset(c, rho);
  const length = ringsLength(rings);
  // Those begin and end at rest.
  const starts = (ringCount(rings) * s.feed) / 60 / inputs.machine.acceleration;
  return length / Math.max((60 * length) / s.feed, length / ringSpeed(inputs, s, c, rho) - starts);
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
  const parts = passes.flatMap((pass) => partsIn(trails, pass, passes));
  const cut = (k: number, from: number, to: number) => {
    const w = new ToolpathWriter(feed, plunge, machine.rapid);
    const { x, y, z } = parts[k];
    const stretch = [x, y, z].map((all) => all.subarray(from, to + 1));
    carveAlone(w, { x: stretch[0], y: stretch[1], z: stretch[2] });
    return w.take();
  };
  const down = parts.reduce((sum, { z }) => sum + NEAR - z[0], 0);
  // The order is not known yet: ways from stroke to stroke are a usual lift each.
  return (
    sampledSeconds(parts, cut, machine, feed) +
    (60 * down) / plunge +
    parts.length * liftSeconds(machine, floor / 2, TRAVEL * floor)
  );
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
  const out = { length: 0, runs: 0 };
  if (rings === 0) return out;
  for (const { at, share } of LOOKS[rings > FEW_RINGS ? "many" : "few"]) {
    const d = rho + step * (0.5 + rings * at);
    const left = leftAt(c, d, (x, y) => cleared!(x, y, d, 0));
    out.length += share * rings * left.length;
    out.runs += share * rings * left.runs;
  }
  return out;
}
