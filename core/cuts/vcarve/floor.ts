import { type Profile, profileOf } from "../../cutters/profile.ts";
import type { Reasoned } from "../../reasoned.ts";
import { fieldsFor } from "../../settings/list.ts";
import { formatLength } from "../../units.ts";
import type { CutContext } from "../kind.ts";

export const borderFields = fieldsFor<CutContext>()
  .choice("side", "Carve", {
    options: [
      { value: "in", label: "ink in" },
      { value: "stands", label: "ink stands" },
    ],
    help: "Ink in: the ink is carved into the stock. Ink stands: everything round it is carved away inside a border.",
    auto: () => ({ value: "in", reason: "a carved sign" }),
  })
  .choice("border", "Border", {
    options: [
      { value: "stock", label: "stock's edge" },
      { value: "frame", label: "frame" },
      { value: "grow", label: "ink, grown" },
      { value: "shape", label: "another outline" },
    ],
    help:
      "What is carved away round the ink: up to the stock's edge, up to a frame, a band round the ink, or the " +
      "inside of another outline.",
    when: (s) => s.side === "stands",
    auto: () => ({ value: "stock", reason: "everything but the ink is carved away" }),
  })
  .length("borderWidth", "Border width", {
    help:
      "For a frame, how much of the stock's edge is left standing; for grown ink, how far round the ink is " +
      "carved away.",
    min: 0.1,
    max: 500,
    step: 0.5,
    when: (s) => s.side === "stands" && (s.border === "frame" || s.border === "grow"),
    auto: (c, s) =>
      s.border === "grow"
        ? { value: 6, reason: "twice a usual floor: the ink stands free" }
        : { value: Math.max(2, c.stock.margin), reason: "the margin kept from the stock's edge" },
  });

/** Stock that a carve leaves below its floor by itself, as a share of thickness. */
const USUAL_FLOOR_SHARE = 0.25;
const USUAL_FLOOR = 3;

/** A floor by itself goes no deeper than this, as a share of the stock's thickness and in mm. */
const SAFE_SHARE = 0.4;
const MOST_FLOOR = 6;
/** A floor that is so deep as a share of the usual stroke's width reads at its size. */
const READS = 1 / 5;

/** A floor that one pass does not reach is worth a second one where it is deeper than so many times that pass. */
const WORTH_A_PASS = 1.5;

/** How deep a carve goes in one pass by itself. */
export function usualPass({ material, cutter }: CutContext): Reasoned {
  return {
    value: Math.round(Math.max(0.2, material.stepdown * cutter.diameter * 0.75) * 100) / 100,
    reason: `what ${material.name.toLowerCase()} lets a ${formatLength(cutter.diameter)} mm V take at once`,
  };
}

/** How deep the floor of a carve usually is: deep enough to read, never past what is safe. */
function usualFloor(c: CutContext, side: string): Reasoned {
  const { stock, strokes, cutter } = c;
  const quarter = Math.round(stock.thickness * USUAL_FLOOR_SHARE * 10) / 10;
  if (quarter < USUAL_FLOOR)
    return { value: Math.max(0.2, quarter), reason: `a quarter of the ${formatLength(stock.thickness)} mm stock` };
  const usual = { value: USUAL_FLOOR, reason: "deep enough for clear shadows" };
  if (!strokes || side === "stands") return usual;
  const safe = Math.min(MOST_FLOOR, SAFE_SHARE * stock.thickness);
  const tenths = (v: number) => Math.round(v * 10) / 10;
  const pointed = Math.ceil(10 * profileOf(cutter).h(strokes.wide / 2)) / 10;
  if (pointed > USUAL_FLOOR && pointed <= safe)
    return { value: pointed, reason: "nine of ten strokes come to a point, and few are wide enough for a floor" };
  const reads = Math.min(safe, READS * strokes.typical);
  if (reads < USUAL_FLOOR + 0.1) return usual;
  const pass = usualPass(c).value;
  if (USUAL_FLOOR <= pass && pass < reads && reads <= WORTH_A_PASS * pass)
    return { value: Math.floor(10 * pass) / 10, reason: "as deep as one pass goes: deeper would take twice as long" };
  return {
    value: tenths(reads),
    reason: `a fifth of the usual stroke, ${formatLength(tenths(strokes.typical))} mm wide`,
  };
}

export const floorFields = fieldsFor<CutContext, { side: string }>()
  .switch("limited", "Depth limit", {
    help: "Without a limit a V cutter goes as deep as the stroke is wide: wide areas can go through the stock.",
    auto: () => ({ value: true, reason: "wide strokes would go as deep as the cutter's cone demands" }),
  })
  .length("floor", "Floor", {
    help: "The depth below which the carve never goes. Strokes too wide for it get a flat floor.",
    min: 0.01,
    max: 200,
    step: 0.05,
    slider: true,
    when: (s) => s.limited === true,
    auto: (c, s) => usualFloor(c, s.side),
    consequence: (v, c) => `leaves ${formatLength(c.stock.thickness - v)} of ${formatLength(c.stock.thickness)} mm`,
  });

/** The depth at which floors lie: the limit, or the cutter's own height where there is none or it is greater. */
export function effectiveFloor(s: { limited: boolean; floor: number }, p: Profile): number {
  return s.limited === false ? p.height : Math.min(s.floor, p.height);
}
