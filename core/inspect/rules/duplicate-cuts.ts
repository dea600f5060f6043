import { sameCutter } from "../../cutters/profile.ts";
import type { Finding, Rule } from "../finding.ts";

/** The same cut twice over: a shape or a cut that was copied and forgotten. */
export const duplicateCuts: Rule = ({ build }) => {
  const out: Finding[] = [];
  const on = build.cuts.filter((c) => c.cut.on && c.toolpath.kind.length > 0);
  on.forEach((c, i) => {
    const twin = on
      .slice(0, i)
      .find(
        (d) => d.cut.kind === c.cut.kind && sameCutter(d.cut.cutter, c.cut.cutter) && sameMoves(d.toolpath, c.toolpath),
      );
    if (twin)
      out.push({
        code: "duplicate-cut",
        severity: "warning",
        message: `${c.cut.name} cuts exactly what ${twin.cut.name} has cut already. Switch one of them off.`,
        cut: c.id,
      });
  });
  return out;
};

function sameMoves(
  a: { x: Float64Array; y: Float64Array; z: Float64Array },
  b: { x: Float64Array; y: Float64Array; z: Float64Array },
): boolean {
  if (a.x.length !== b.x.length) return false;
  for (let i = 0; i < a.x.length; i++) if (a.x[i] !== b.x[i] || a.y[i] !== b.y[i] || a.z[i] !== b.z[i]) return false;
  return true;
}
