import { type Bite, chipAt, feedsFor, usualStepdown } from "../cutters/feeds.ts";
import { PACE, paceIn } from "../cutters/machine.ts";
import type { Material } from "../cutters/materials.ts";
import type { Cutter } from "../cutters/profile.ts";
import type { Reasoned } from "../reasoned.ts";
import { fieldsFor } from "../settings/list.ts";
import { formatLength } from "../units.ts";
import type { CutContext, Note } from "./kind.ts";

/** What a machine or a spindle can be told at all. */
const RATES = { min: 1, max: 100_000 };

/** Feed, plunge and spindle speed, each with its reason, from what the cut takes at once; and one dial over them. */
export const rateFields = <S extends object>(bite: (c: CutContext, s: S) => Bite) =>
  fieldsFor<CutContext, S>()
    .share("pace", "Pace", {
      help: "Faster or gentler than usual: feed and plunge follow. Less where the machine or the hold is weak.",
      min: PACE.least,
      max: PACE.most,
      step: 0.05,
      slider: true,
      auto: ({ machine, material }) => {
        const remembered = paceIn(machine, material.id);
        return remembered === null
          ? { value: 1, reason: "the chip that is usual" }
          : { value: remembered, reason: `as remembered for ${material.name.toLowerCase()} on this machine` };
      },
    })
    .speed("spindle", "Spindle speed", {
      ...RATES,
      more: true,
      auto: (c, s) => feedsFor(c, bite(c, s), { pace: s.pace }).spindle,
    })
    .feed("feed", "Feed", {
      ...RATES,
      auto: (c, s) => feedsFor(c, bite(c, s), s).feed,
      gauge: (feed, c, s) => ({ ...chipAt(c, bite(c, s), { feed, spindle: s.spindle }), most: c.machine.feedMost }),
    })
    .feed("plunge", "Plunge", { ...RATES, auto: (c, s) => feedsFor(c, bite(c, s), s).plunge });

/** Depth of each pass, with how many that makes. */
export const stepdownField = <S extends object>(depth: (c: CutContext, s: S) => number) =>
  fieldsFor<CutContext, S>().length("stepdown", "Stepdown", {
    help: "Depth of each pass.",
    min: 0.005,
    max: 100,
    step: 0.1,
    auto: (c) => usualStepdown(c),
    consequence: (v, c, s) => {
      const n = Math.max(1, Math.ceil(depth(c, s) / v - 1e-6));
      return `${n} ${n === 1 ? "pass" : "passes"} to ${formatLength(depth(c, s))} mm`;
    },
  });

/** More of a flat cutter's diameter at once leaves ridges where rings turn. */
const MOST_STEPOVER = 0.45;

/** How far apart passes usually lie. */
export function usualStepover(cutter: Cutter, material: Material): Reasoned {
  const share = Math.min(MOST_STEPOVER, material.stepover);
  return {
    value: Math.max(0.01, Math.round(share * cutter.diameter * 100) / 100),
    reason: `${share} × the cutter in ${material.name.toLowerCase()}`,
  };
}

export const stepoverField = fieldsFor<CutContext>().length("stepover", "Stepover", {
  help: "Distance between neighbouring passes.",
  min: 0.01,
  max: 100,
  step: 0.1,
  auto: (c) => usualStepover(c.cutter, c.material),
});

export const rampField = fieldsFor<CutContext>().angle("ramp", "Ramp angle", {
  help: "How steeply the cutter sinks along its path instead of plunging.",
  min: 0.5,
  max: 45,
  step: 0.5,
  more: true,
  auto: () => ({ value: 3, reason: "gentle on flat cutters" }),
});

export const entryField = fieldsFor<CutContext>().choice("entry", "Entry", {
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
});

export const directionField = fieldsFor<CutContext>().choice("direction", "Direction", {
  options: [
    { value: "climb", label: "climb" },
    { value: "conventional", label: "conventional" },
  ],
  help:
    "Climb: the cutter's edge comes out of the stock thin, for a cleaner wall. Conventional pulls less on " +
    "machines with play.",
  more: true,
  auto: () => ({ value: "climb", reason: "the cleaner wall" }),
});

export const leaveField = fieldsFor<CutContext>().length("leave", "Leave on walls", {
  help: "Stock kept on the walls for a later cut.",
  min: 0,
  max: 10,
  step: 0.05,
  more: true,
  auto: () => ({ value: 0, reason: "cut to size" }),
});

export const slopeOf = (s: { ramp: number }): number => Math.tan((s.ramp * Math.PI) / 180);

/**
 * A stepover as wide as the cutter or wider leaves ridges between the passes: taken as this share of the cutter then,
 * and said.
 */
const CLAMPED_STEPOVER = 0.9;

/** The stepover that can be cut with, and what is to be said when it is not the one asked for. */
export function safeStepover(c: CutContext, s: { stepover: number }, notes: Note[], name: string): number {
  const asked = s.stepover;
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
