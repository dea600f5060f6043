import { profileOf, SCRATCH } from "../../cutters/profile.ts";
import { formatLength } from "../../units.ts";
import type { Finding, Rule } from "../finding.ts";

/** Strokes so narrow that a V cutter only scratches them: lost detail, with its area and share of the art. */
export const thinStrokes: Rule = ({ build }) => {
  const out: Finding[] = [];
  for (const c of build.cuts) {
    if (!c.cut.on || c.facts.thinArea === undefined || c.facts.area <= 0) continue;
    const share = c.facts.thinArea / c.facts.area;
    if (share < 0.002) continue;
    const width = 2 * profileOf(c.cut.cutter).r(SCRATCH);
    out.push({
      code: "lost-detail",
      severity: share > 0.02 ? "warning" : "note",
      message:
        `${formatLength(c.facts.thinArea, "mm", 1)} mm² (${(100 * share).toFixed(1)} %) of the art is strokes ` +
        `under ${formatLength(width)} mm wide: ${c.cut.name} only scratches them, less than ${SCRATCH} mm deep. ` +
        "Make the art wider, or use a narrower V cutter.",
      cut: c.id,
      at: { x: c.facts.thinX, y: c.facts.thinY },
    });
  }
  return out;
};
