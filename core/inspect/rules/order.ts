import { boundsOf, type Box } from "../../geometry/rings.ts";
import type { CutResult } from "../../job/plan.ts";
import type { Finding, Rule } from "../finding.ts";

/** A cut that goes through the stock and leaves what is inside it free. */
const frees = ({ freed }: CutResult): boolean => freed !== undefined && freed.pieces > 0 && freed.heldBy !== "tabs";

/**
 * Cuts in an order that spoils the piece: floors cleared after they were carved, pieces worked on after they came free.
 */
export const order: Rule = ({ build }) => {
  const out: Finding[] = [];
  const on = build.cuts.filter((c) => c.cut.on && c.toolpath.kind.length > 0);
  on.forEach((c, i) => {
    const target = on.findIndex((t) => t.id === c.cut.target);
    const { helps } = c.kind;
    if (helps && target >= 0 && (helps.comes === "before" ? target < i : target > i))
      out.push({
        code: "wrong-order",
        severity: "warning",
        message: helps.wrongSide(c.cut.name, on[target].cut.name),
        cut: c.id,
      });
    const freed = on.slice(0, i).find((f) => frees(f) && touches(f, c));
    if (freed)
      out.push({
        code: "cut-after-free",
        severity: "warning",
        message:
          `${c.cut.name} works on what ${freed.cut.name} has cut free: the piece may shift under the cutter. ` +
          "Move it before, or hold the piece with tabs.",
        cut: c.id,
      });
  });
  return out;
};

const box = (c: CutResult): Box =>
  boundsOf(
    Float64Array.from({ length: 2 * c.toolpath.x.length }, (_, i) =>
      i % 2 ? c.toolpath.y[i >> 1] : c.toolpath.x[i >> 1],
    ),
  );
function touches(a: CutResult, b: CutResult): boolean {
  const [p, q] = [box(a), box(b)];
  return p.minX < q.maxX && q.minX < p.maxX && p.minY < q.maxY && q.minY < p.maxY;
}
