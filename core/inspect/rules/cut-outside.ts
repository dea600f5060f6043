import { maskOf } from "../../geometry/mask.ts";
import type { Finding, Rule } from "../finding.ts";

/** Cells beside the region's edge that the grid alone may put on the wrong side. */
const BESIDE = 2;
/** Shallower than this outside the region is the sweep's own rounding, mm. */
const TOUCH = 0.05;
/** Less than this much outside is no cut, mm². */
const LEAST_AREA = 0.4;

/**
 * Stock that was cut where the cut's own region says it must not be: nothing a person did, but a fault here, and a
 * ruined board. The proof comes from the very moves that will be written, so it tells independently of the plan.
 */
export const cutOutside: Rule = ({ build }) => {
  const out: Finding[] = [];
  const { width, height, cell, z, by } = build.proof;
  build.cuts.forEach((c, i) => {
    if (!c.cut.on || !c.within) return;
    const inside = maskOf(c.within, width, height, cell);
    const near = (x: number, y: number): boolean => {
      for (let v = Math.max(0, y - BESIDE); v <= Math.min(height - 1, y + BESIDE); v++)
        for (let u = Math.max(0, x - BESIDE); u <= Math.min(width - 1, x + BESIDE); u++)
          if (inside[v * width + u]) return true;
      return false;
    };
    let count = 0;
    let first = -1;
    for (let k = 0; k < z.length; k++) {
      if (by[k] !== i + 1 || inside[k] || z[k] > -TOUCH) continue;
      const x = k % width;
      if (near(x, (k - x) / width)) continue;
      if (first < 0) first = k;
      count++;
    }
    const area = count * cell * cell;
    if (area < LEAST_AREA) return;
    const at = { x: ((first % width) + 0.5) * cell, y: (Math.floor(first / width) + 0.5) * cell };
    out.push({
      code: "cut-outside",
      severity: "stop",
      message:
        `${c.cut.name} cuts ${area.toFixed(1)} mm² where nothing may be cut, near x ${at.x.toFixed(1)}, y ` +
        `${at.y.toFixed(1)} mm. This is a fault in Oaken Bit: do not run the program. Change a setting a little, ` +
        "such as hold within, and look again.",
      cut: c.id,
      at,
    });
  });
  return out;
};
