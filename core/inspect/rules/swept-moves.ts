import type { CutResult } from "../../job/plan.ts";
import type { Finding, Rule } from "../finding.ts";

const place = (c: CutResult, move: number) => ({ x: c.toolpath.x[move], y: c.toolpath.y[move] });

/** Rapids that would run through stock, and cutters that cannot cut at their centre sent straight down into it. */
export const sweptMoves: Rule = ({ build }) =>
  build.cuts.flatMap((c, i): Finding[] => {
    const swept = build.swept[i];
    if (!swept) return [];
    const out: Finding[] = [];
    const { entry } = c.kind.handles;
    if (swept.rapids > 0)
      out.push({
        code: "rapid-through-stock",
        severity: "stop",
        message:
          `${c.cut.name} travels through stock at rapid speed in ${swept.rapids} ` +
          `${swept.rapids === 1 ? "place" : "places"}. This is a fault in Oaken Bit: do not run the program.`,
        cut: c.id,
        at: place(c, swept.rapidAt),
      });
    if (swept.plunges > 0 && !c.cut.cutter.centreCutting)
      out.push({
        code: "plunge-without-centre",
        severity: "stop",
        message:
          `${c.cut.name} goes straight down into stock in ${swept.plunges} ` +
          `${swept.plunges === 1 ? "place" : "places"}, but its cutter does not cut at its centre. Let it enter by ` +
          "helix or ramp.",
        cut: c.id,
        cure: entry ? { id: c.id, field: entry, value: "auto", label: "Enter by helix or ramp" } : undefined,
        at: place(c, swept.plungeAt),
      });
    return out;
  });
