import { feedsFor, type Feeds } from "../cutters/feeds.ts";
import { type Field, rateField, type Settings } from "../settings/fields.ts";
import { formatLength } from "../units.ts";
import type { Entry } from "./area/level.ts";
import type { CutContext, Note } from "./kind.ts";

/** A field of a cut. */
export type CutField = Field<CutContext>;

/** Feed, plunge and spindle speed, from what the cut takes at once. */
export const rateFields = (feeds: (c: CutContext, s: Settings) => Feeds): CutField[] => [
  rateField("feed", "Feed", "feed", (c: CutContext, s) => feeds(c, s).feed),
  rateField("plunge", "Plunge", "feed", (c: CutContext, s) => feeds(c, s).plunge),
  rateField("spindle", "Spindle speed", "speed", (c: CutContext, s) => feeds(c, s).spindle),
];

/** Depth of each pass, with how many that makes. */
export const stepdownField = (depth: (c: CutContext, s: Settings) => number): CutField => ({
  key: "stepdown",
  label: "Stepdown",
  type: "length",
  help: "Depth of each pass.",
  min: 0.005,
  max: 100,
  step: 0.1,
  auto: (c) => feedsFor(c.cutter, c.material, c.machine, 1, c.cutter.diameter / 2).stepdown,
  consequence: (v, c, s) => {
    const n = Math.max(1, Math.ceil(depth(c, s) / (v as number) - 1e-6));
    return `${n} ${n === 1 ? "pass" : "passes"} to ${formatLength(depth(c, s))} mm`;
  },
});

/** More of a flat cutter's diameter at once leaves ridges where rings turn. */
const MOST_STEPOVER = 0.45;

export const stepoverField: CutField = {
  key: "stepover",
  label: "Stepover",
  type: "length",
  help: "Distance between neighbouring passes.",
  min: 0.01,
  max: 100,
  step: 0.1,
  auto: (c) => {
    const share = Math.min(MOST_STEPOVER, c.material.stepover);
    return {
      value: Math.max(0.01, Math.round(share * c.cutter.diameter * 100) / 100),
      reason: `${share} × the cutter in ${c.material.name.toLowerCase()}`,
    };
  },
};

export const rampField: CutField = {
  key: "ramp",
  label: "Ramp angle",
  type: "angle",
  help: "How steeply the cutter sinks along its path instead of plunging.",
  min: 0.5,
  max: 45,
  step: 0.5,
  more: true,
  auto: () => ({ value: 3, reason: "gentle on flat cutters" }),
};

export const entryField: CutField = {
  key: "entry",
  label: "Entry",
  type: "choice",
  options: [
    { value: "auto", label: "helix or ramp" },
    { value: "helix", label: "helix" },
    { value: "ramp", label: "ramp" },
    { value: "plunge", label: "plunge" },
  ],
  help:
    "How the cutter gets down into solid stock. Helix: round a small circle where there is room. Ramp: sinking " +
    "along its path. Plunge: straight down, only for cutters that cut at their centre.",
  more: true,
  auto: () => ({ value: "auto", reason: "a helix where there is room, else a ramp" }),
};

export const directionField: CutField = {
  key: "direction",
  label: "Direction",
  type: "choice",
  options: [
    { value: "climb", label: "climb" },
    { value: "conventional", label: "conventional" },
  ],
  help:
    "Climb: the cutter's edge comes out of the stock thin, for a cleaner wall. Conventional pulls less on " +
    "machines with play.",
  more: true,
  auto: () => ({ value: "climb", reason: "the cleaner wall" }),
};

export const leaveField: CutField = {
  key: "leave",
  label: "Leave on walls",
  type: "length",
  help: "Stock kept on the walls for a later cut.",
  min: 0,
  max: 10,
  step: 0.05,
  more: true,
  auto: () => ({ value: 0, reason: "cut to size" }),
};

export const slopeOf = (s: Settings): number => Math.tan(((s.ramp as number) * Math.PI) / 180);
export const entryOf = (s: Settings): Entry => (s.entry as Entry) ?? "auto";

/**
 * A stepover as wide as the cutter or wider leaves ridges between the passes: taken as this share of the cutter then,
 * and said.
 */
const CLAMPED_STEPOVER = 0.9;

/** The stepover that can be cut with, and what is to be said when it is not the one asked for. */
export function safeStepover(c: CutContext, s: Settings, notes: Note[], name: string): number {
  const asked = s.stepover as number;
  const most = CLAMPED_STEPOVER * c.cutter.diameter;
  if (asked <= most) return asked;
  notes.push({
    code: "stepover-too-wide",
    severity: "stop",
    message:
      `${name}: a stepover of ${formatLength(asked)} mm leaves ridges with a ${formatLength(c.cutter.diameter)} ` +
      `mm cutter. Use at most ${formatLength(most)} mm.`,
  });
  return most;
}
