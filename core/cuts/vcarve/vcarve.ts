import { sloping } from "../../proof/asked.ts";
import { rateFields } from "../fields.ts";
import { CARVE_READS, type CarveInputs, carveRegion } from "./border.ts";
import { describeCutter, isCone, profileOf, SCRATCH } from "../../cutters/profile.ts";
import { regionArea, ringCount } from "../../geometry/rings.ts";
import { fieldsFor, type SettingsOf } from "../../settings/list.ts";
import { formatLength } from "../../units.ts";
import { between } from "../../toolpath/stretches.ts";
import { ToolpathWriter } from "../../toolpath/toolpath.ts";
import { leftIn } from "../area/left.ts";
import { type CutContext, defineCut, type Left, type Note, type Planned } from "../kind.ts";
import { borderFields, floorFields } from "./floor.ts";
import { floorTrails } from "./rest.ts";
import { carveTrails, clearLinks } from "./trails.ts";
import { carveSeconds } from "./seconds.ts";
import { passesOver, strokesOf } from "./strokes.ts";
import { thinParts } from "./thin.ts";

const biteOf = (c: CutContext, s: { floor: number }) => ({
  depth: Math.min(s.floor, c.material.stepdown * c.cutter.diameter),
  width: c.cutter.diameter,
});

const fields = fieldsFor<CutContext>()
  .with(borderFields)
  .with(floorFields)
  .length("ridge", "Ridge on the floor", {
    help: "Height of the lines a pointed cutter leaves between its passes over a floor. Lower is smoother and slower.",
    min: 0.005,
    max: 2,
    step: 0.01,
    when: (s) => s.limited === true,
    auto: () => ({ value: 0.1, reason: "a minute of sanding takes it away" }),
    consequence: (v, c) => `passes ${formatLength(2 * profileOf(c.cutter).r(v), "mm", 3)} mm apart`,
  })
  .length("stepdown", "Deepest pass", {
    help: "Deeper strokes are carved in several passes, each this much deeper than the last.",
    min: 0.05,
    max: 100,
    step: 0.1,
    more: true,
    auto: (c) => {
      const deep = Math.round(Math.max(0.2, c.material.stepdown * c.cutter.diameter * 0.75) * 100) / 100;
      return {
        value: deep,
        reason: `what ${c.material.name.toLowerCase()} lets a ${formatLength(c.cutter.diameter)} mm V take at once`,
      };
    },
  })
  .with(rateFields(biteOf));
export type VcarveSettings = SettingsOf<typeof fields>;

/**
 * Carves with a pointed cutter so that the stock's top keeps the outline exactly and walls slope at the cutter's angle.
 */
export const vcarve = defineCut({
  kind: "vcarve",
  title: "Carve",
  about: "pointed cutter, sloping walls",
  cutters: ["v", "taper", "ball", "form"],
  summary: (s, c) => {
    const floor = s.limited ? `floor ${formatLength(s.floor)} mm` : "no floor";
    return `${c.kind === "v" ? `V ${c.angle}°` : describeCutter(c)} · ${floor}`;
  },
  fields,
  reads: CARVE_READS,
  handles: {
    depth: "floor",
    unlimited: { field: "limited", value: false },
    border: { field: "border", width: "borderWidth" },
  },
  intent: (s) => ({ depth: s.limited ? s.floor : null, through: false }),
  seesStrokes: (own) => own.side !== "stands",
  sample: { cutter: "v:60:12" },
  estimate,
  left,
  plan,
});

/** How long it would take, without planning it, s. */
function estimate(inputs: CarveInputs, s: VcarveSettings): number {
  const region = carveRegion(inputs, s);
  return region && ringCount(region) > 0 ? carveSeconds(inputs, s, strokesOf(inputs, s, region)) : 0;
}

/** Where its point is wider than the shapes: clearing cutters leave nothing that it does not take. */
function left(inputs: CarveInputs, s: VcarveSettings): Left {
  const region = carveRegion(inputs, s);
  const { r } = profileOf(inputs.cutter);
  if (!region) return { area: 0, missing: 0, spare: 0 };
  const area = leftIn(inputs, region, r(SCRATCH));
  return { area, missing: 0, spare: area };
}

function plan(inputs: CarveInputs, s: VcarveSettings): Planned {
  const profile = profileOf(inputs.cutter);
  const w = new ToolpathWriter(s.feed, s.plunge, inputs.machine.rapid);
  const region = carveRegion(inputs, s);
  if (!region || ringCount(region) === 0)
    return { toolpath: w.take(), notes: region ? [] : [outsideBorder], facts: {} };
  const { c, floor, rho, trails, opened } = strokesOf(inputs, s, region);
  inputs.progress(0.4);
  const { rest, scraped } = floorTrails(inputs, c, s, profile, floor, rho);
  inputs.progress(0.8);
  const all = [...trails, ...rest];

  const links = clearLinks(region, (depth) => profile.r(depth), floor);
  const step = s.stepdown;
  const passes = passesOver(c, s, floor, profile);
  for (let k = 0; k < passes; k++) {
    const top = k === 0 ? Infinity : -k * step;
    const low = k === passes - 1 ? -floor : -(k + 1) * step;
    const parts = passes === 1 ? all : all.flatMap((t) => between(t, top, low));
    carveTrails(w, parts, links, floor, opened);
  }
  const thin = thinParts(c, profile.r(SCRATCH));
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
