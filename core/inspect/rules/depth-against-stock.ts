import { formatLength } from "../../units.ts";
import type { Finding, Rule } from "../finding.ts";

/** Stock that must stay below a floor, mm. */
const LEAST_LEFT = 1;

/** Cuts that mean to keep a floor but go through the stock, or leave next to nothing of it. */
export const depthAgainstStock: Rule = ({ build }) => {
  const { thickness } = build.job.stock;
  const out: Finding[] = [];
  for (const c of build.cuts) {
    const { depth, through } = c.intent;
    if (!c.cut.on || through || depth === null || c.cut.target) continue;
    const field = c.kind.handles.depth;
    const fits = Math.max(0.1, Math.floor((thickness - LEAST_LEFT) * 10) / 10);
    const cure = field ? { id: c.id, field, value: fits, label: `Set to ${formatLength(fits)} mm` } : undefined;
    if (depth >= thickness)
      out.push({
        code: "floor-through-stock",
        severity: "stop",
        message:
          `${c.cut.name} goes ${formatLength(depth)} mm deep; the stock is ${formatLength(thickness)} mm thick. ` +
          "Raise the floor.",
        cut: c.id,
        cure,
      });
    else if (thickness - depth < LEAST_LEFT)
      out.push({
        code: "floor-leaves-little",
        severity: "warning",
        message:
          `${c.cut.name} leaves only ${formatLength(thickness - depth)} mm of the stock below its floor. Raise ` +
          "the floor, or use thicker stock.",
        cut: c.id,
        cure,
      });
  }
  return out;
};
