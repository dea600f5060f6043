import { fieldsFor, type SettingsOf } from "../../settings/list.ts";
import { formatLength } from "../../units.ts";
import { defineMaking } from "../kind.ts";
import { later } from "../../later.ts";

interface CombineContext {
  /** how closely what it reads holds to what it was made from, mm */
  held: number;
  hasOther: boolean;
}

/** Closer than this to combined edges gains nothing a machine can cut, mm. */
const LEAST_HOLD = 0.005;

const fields = fieldsFor<CombineContext>()
  .choice("how", "Combine by", {
    options: [
      { value: "add", label: "adding" },
      { value: "subtract", label: "taking away" },
      { value: "overlap", label: "overlap" },
    ],
    help:
      "Adding: both are one area. Taking away: the first without what the second covers. Overlap: only what both " +
      "cover.",
    auto: (c) => ({ value: "add", reason: c.hasOther ? "both together" : "there is only one" }),
  })
  .length("offset", "Then offset by", {
    help: "Moves every edge outward by this much, or inward where it is less than 0.",
    min: -200,
    max: 200,
    step: 0.1,
    slider: true,
    auto: () => ({ value: 0, reason: "edges stay where they are" }),
    consequence: (v) => (v === 0 ? "" : `edges ${formatLength(Math.abs(v))} mm farther ${v > 0 ? "out" : "in"}`),
  })
  .length("hold", "Hold within", {
    help: "How far the lines and curves may stray from the combined edges.",
    min: 0.002,
    max: 5,
    step: 0.01,
    more: true,
    auto: (c) => ({
      value: Math.round(Math.max(LEAST_HOLD, c.held / 2) * 1000) / 1000,
      reason: "half of what the shapes themselves are held to",
    }),
  });
export type CombineSettings = SettingsOf<typeof fields>;

export const reads = {
  first: { gives: "shapes", label: "First shapes" },
  second: { gives: "shapes", label: "Second shapes", optional: true },
} as const;

const work = later(() => import("./make.ts"));

/** Shapes of two other makings as one, or one with its edges moved. */
export const combine = defineMaking({
  kind: "combine",
  title: "Combination",
  about: "adds, takes away or overlaps shapes, or moves their edges",
  reads,
  gives: "shapes",
  fields,
  handles: {},
  context: ({ reads: { first, second } }): CombineContext => ({
    held: Math.max(first.held, second?.held ?? 0),
    hasOther: second !== null,
  }),
  make: work("make"),
});
