import type { CutResult } from "../../job/plan.ts";
import type { Gauge } from "../../settings/fields.ts";
import { formatLength } from "../../units.ts";
import type { Finding, Rule } from "../finding.ts";

/** A feed is offered to this, mm/min. */
const FEED_STEP = 10;

/** Chips that break teeth, or that are so thin that the cutter rubs; speeds that the machine does not have. */
export const load: Rule = ({ build }) => {
  const { machine, stock } = build.job;
  return build.cuts
    .filter((c) => c.cut.on && c.toolpath.kind.length > 0 && c.cut.cutter.kind !== "torch")
    .flatMap((c): Finding[] => {
      const gauge = c.resolved.feed?.gauge;
      const chip = gauge ? chipFinding(c, gauge, stock.material.family === "plastic") : [];
      return [...chip, ...spindleFinding(c, machine.spindleLeast, machine.spindleMost)];
    });
};

function chipFinding(c: CutResult, gauge: Gauge, isPlastic: boolean): Finding[] {
  const feed = Number(c.values.feed);
  const better = Math.max(FEED_STEP, Math.round((feed * gauge.usual) / gauge.value / FEED_STEP) * FEED_STEP);
  const cure = { id: c.id, field: "feed", value: better, label: `feed ${better} mm/min` };
  const chip = `${formatLength(gauge.value, "mm", 4)} mm`;
  const at = { cut: c.id, ...(better <= gauge.most && { cure }) };
  if (gauge.value > gauge.breaks * (1 + TOLERANCE))
    return [
      {
        code: "chip-too-thick",
        severity: "warning",
        message:
          `${c.cut.name}: each tooth takes ${chip}, more than the ${formatLength(gauge.breaks, "mm", 4)} mm it ` +
          "bears: it may break or bend. Feed slower or turn faster.",
        ...at,
      },
    ];
  if (gauge.value < gauge.rubs * (1 - TOLERANCE))
    return [
      {
        code: "chip-too-thin",
        severity: "warning",
        message:
          `${c.cut.name}: each tooth takes ${chip}, less than the ${formatLength(gauge.rubs, "mm", 4)} mm at which ` +
          `it still cuts: it rubs${isPlastic ? ", melts the plastic" : " and burns"}. Feed faster or turn slower.`,
        ...at,
      },
    ];
  return [];
}
/** Feeds and speeds are rounded: a chip so near its limit keeps to it. */
const TOLERANCE = 0.05;

function spindleFinding(c: CutResult, least: number, most: number): Finding[] {
  const spindle = Number(c.values.spindle);
  if (spindle >= least && spindle <= most) return [];
  const value = spindle < least ? least : most;
  return [
    {
      code: "spindle-out-of-range",
      severity: "warning",
      message:
        `${c.cut.name} asks for ${spindle} turns a minute; this machine turns from ${least} to ${most}. It would run ` +
        "at another speed than its feed was figured for.",
      cut: c.id,
      cure: { id: c.id, field: "spindle", value, label: `spindle ${value}/min` },
    },
  ];
}
