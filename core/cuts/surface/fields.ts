import { isFlat, profileOf } from "../../cutters/profile.ts";
import { fieldsFor } from "../../settings/list.ts";
import { formatLength } from "../../units.ts";
import type { CutContext } from "../kind.ts";

/** Ridges that sanding takes away, mm; a share of a ball's radius where that is finer. */
const USUAL_RIDGE = 0.02;
/** Passes of a point nearer than this take hours and show nothing, mm. */
const LEAST_STEPOVER = 0.1;
const MOST_STEPOVER = 0.45;
const stepoverFor = (c: CutContext, ridge: number): number => {
  const p = profileOf(c.cutter);
  return Math.max(LEAST_STEPOVER, Math.min(MOST_STEPOVER * c.cutter.diameter, 2 * p.r(ridge)));
};

/** Lines of a cut that helps another run as that one's do. */
export const helpersAngle = fieldsFor<CutContext>().angle("angle", "Angle", {
  help: "Of the lines, from left to right.",
  min: -180,
  max: 180,
  step: 5,
  more: true,
  auto: (c) => ({
    value: Number(c.target?.settings.angle ?? 0),
    reason: c.target ? "as the finishing lines" : "along the board",
  }),
});

/** How near passes over a surface lie, which way they are cut and how closely they follow it. */
export const passFields = fieldsFor<CutContext>()
  .length("ridge", "Ridge that may stay", {
    help: "How high the ridges between two lines stand on level ground; the distance of the lines follows.",
    min: 0.001,
    max: 5,
    step: 0.005,
    auto: (c) => ({
      value: Math.max(0.001, Math.round(Math.min(USUAL_RIDGE, 0.04 * c.cutter.diameter) * 1000) / 1000),
      reason: "sanding takes it away",
    }),
  })
  .length("stepover", "Stepover", {
    help: "Distance from line to line.",
    min: 0.01,
    max: 50,
    step: 0.01,
    auto: (c, s) => {
      const value = Math.round(stepoverFor(c, s.ridge) * 1000) / 1000;
      const p = profileOf(c.cutter);
      const isPoint = p.ball === 0 && !isFlat(p);
      if (isPoint && value === LEAST_STEPOVER)
        return { value, reason: "a point has no width: finer takes hours, and leaves a ridge all the same" };
      return { value, reason: `leaves ridges of ${formatLength(s.ridge, "mm", 3)} mm with this cutter` };
    },
    consequence: (v, c) => {
      const p = profileOf(c.cutter);
      const ridge = v / 2 > p.radius ? p.height : p.h(v / 2);
      return `ridges of ${formatLength(ridge, "mm", 3)} mm on level ground`;
    },
  })
  .length("overrun", "Past the edge", {
    help: "How far the cutter's middle goes past the board's edge, so that the rim comes out clean.",
    min: 0,
    max: 50,
    step: 0.5,
    more: true,
    auto: (c) => ({ value: Math.round(profileOf(c.cutter).radius * 1000) / 1000, reason: "the cutter's own radius" }),
  })
  .choice("direction", "Direction", {
    options: [
      { value: "both", label: "there and back" },
      { value: "one", label: "one way" },
    ],
    help: "One way cuts all lines alike, and lifts between them.",
    more: true,
    auto: () => ({ value: "both", reason: "half the time of one way" }),
  })
  .length("tolerance", "Path within", {
    help: "How far above the surface the path's lines may lie; never below it.",
    min: 0.001,
    max: 1,
    step: 0.005,
    more: true,
    auto: () => ({ value: 0.01, reason: "finer than wood shows" }),
  });
