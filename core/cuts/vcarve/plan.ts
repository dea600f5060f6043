import { sloping } from "../../proof/asked.ts";
import { carveRegion } from "./border.ts";
import type { CarveInputs } from "./reads.ts";
import { isCone, profileOf, SCRATCH } from "../../cutters/profile.ts";
import { regionArea, ringCount } from "../../geometry/rings.ts";
import { formatLength } from "../../units.ts";
import { ToolpathWriter } from "../../toolpath/toolpath.ts";
import type { Left, Note, Planned } from "../kind.ts";
import { joinedTrails } from "./network.ts";
import { floorTrails } from "./rest.ts";
import { carveTrails, clearLinks } from "./trails.ts";
import { carveSeconds } from "./seconds.ts";
import { partsIn, passesOf, type Strokes, strokesOf, trailsOf } from "./strokes.ts";
import { type ThinParts, thinParts } from "./thin.ts";
import type { VcarveSettings } from "./vcarve.ts";

/** How long it would take, without planning it, s. */
export function estimate(inputs: CarveInputs, s: VcarveSettings): number {
  const region = carveRegion(inputs, s);
  return region && ringCount(region) > 0 ? carveSeconds(inputs, s, strokesOf(inputs, s, region)) : 0;
}

/** Strokes that are a scratch: clearing cutters leave nothing that the carve's own cutter does not take. */
export function left(inputs: CarveInputs, s: VcarveSettings): Left {
  const region = carveRegion(inputs, s);
  const area = region && ringCount(region) > 0 ? scratches(inputs, strokesOf(inputs, s, region)).area : 0;
  return { area, missing: 0, spare: area };
}

/** The strokes that its cutter would only scratch; kept. */
const scratches = ({ kept, cutter }: CarveInputs, { c }: Strokes): ThinParts =>
  kept.of("scratches", [c, profileOf(cutter).r(SCRATCH)], thinParts);

export function plan(inputs: CarveInputs, s: VcarveSettings): Planned {
  const profile = profileOf(inputs.cutter);
  const w = new ToolpathWriter(s.feed, s.plunge, inputs.machine.rapid);
  const region = carveRegion(inputs, s);
  if (!region || ringCount(region) === 0)
    return { toolpath: w.take(), notes: region ? [] : [outsideBorder], facts: {} };
  const strokes = strokesOf(inputs, s, region);
  const { c, floor, rho, opened } = strokes;
  inputs.progress(0.4);
  const { rest, scraped } = floorTrails(inputs, c, s, profile, floor, rho);
  inputs.progress(0.8);
  const links = clearLinks(region, (depth) => profile.r(depth), floor);
  const all = rest.length > 0 ? joinedTrails(strokes.ways, { runs: rest, link: links }) : trailsOf(inputs, strokes);
  const passes = passesOf(c, s, floor, profile);
  for (const pass of passes) carveTrails(w, partsIn(all, pass, passes), links, floor, opened);
  const thin = scratches(inputs, strokes);
  const facts = {
    widest: c.widest,
    deepest: Math.min(floor, profile.h(Math.min(c.widest, profile.radius))),
    scraped,
    area: regionArea(region),
    thinArea: thin.area,
    thinX: thin.x,
    thinY: thin.y,
  };
  const notes: Note[] =
    scraped > LONG_SCRAPE
      ? [
          {
            code: "v-scrapes-floor",
            severity: "warning",
            message:
              `The V cutter scrapes ${formatLength(scraped / 1000, "mm", 1)} m of open floor. Clear wide floors ` +
              "with a flat cutter first.",
          },
        ]
      : [];
  return {
    toolpath: w.take(),
    notes,
    facts,
    within: region,
    ...(isCone(profile) && { asked: sloping(region, floor, profile.coneSlope, s.ridge) }),
  };
}

/** Scraping longer than this on open floor deserves a clearing cutter, mm. */
const LONG_SCRAPE = 15000;

const outsideBorder = {
  code: "ink-outside-border",
  severity: "stop" as const,
  message:
    "The art reaches beyond its border, or no outline is chosen for it, so nothing can be left standing there. " +
    "Make the art smaller, move it, or choose or widen the border.",
};
