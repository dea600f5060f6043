import { isCone, profileOf } from "../../cutters/profile.ts";
import { formatLength } from "../../units.ts";
import type { Finding, Rule } from "../finding.ts";
import { widestPlace } from "../widest.ts";

/** A carve without a depth limit whose strokes are so wide that the cutter passes the stock or its own height. */
export const noFloor: Rule = ({ build }) => {
  const out: Finding[] = [];
  const { thickness } = build.job.stock;
  for (const c of build.cuts) {
    if (!c.cut.on || c.intent.depth !== null) continue;
    const p = profileOf(c.cut.cutter);
    const { widest } = c.facts;
    if (widest === undefined) continue;
    const wanted = isCone(p) ? p.coneSlope * Math.max(0, widest - p.flat) : p.h(Math.min(widest, p.radius));
    const at = widestPlace(c);
    const limit = c.kind.handles.unlimited;
    const cure = limit && { id: c.id, field: limit.field, value: !limit.value, label: "Set a depth limit" };
    if (Math.min(wanted, p.height) >= thickness)
      out.push({
        code: "no-floor-through-stock",
        severity: "stop",
        message:
          `${c.cut.name} has no depth limit: its widest stroke, ${formatLength(2 * widest)} mm, would go ` +
          `${formatLength(wanted)} mm deep in ${formatLength(thickness)} mm stock. Set a floor.`,
        cut: c.id,
        cure,
        at,
      });
    else if (wanted > p.height)
      out.push({
        code: "no-floor-past-cutter",
        severity: "warning",
        message:
          `${c.cut.name} has no depth limit: its widest stroke, ${formatLength(2 * widest)} mm, would need ` +
          `${formatLength(wanted)} mm, but the cutter is only ${formatLength(p.height)} mm high. Set a floor, or ` +
          "use a wider cutter.",
        cut: c.id,
        cure,
        at,
      });
  }
  return out;
};
