import type { Toolpath } from "../../toolpath/toolpath.ts";
import type { Finding, Rule } from "../finding.ts";

/** A path with a number that is none: it must not reach a machine, whatever made it. */
export const finiteMoves: Rule = ({ build }) =>
  build.cuts
    .filter((c) => c.cut.on && !isFinite(c.toolpath))
    .map((c): Finding => ({
      code: "not-a-number",
      severity: "stop",
      message:
        `${c.cut.name}: a move of its path has no place. This is a fault of Oaken Bit; change the size or the cutter ` +
        "a little and report it.",
      cut: c.id,
    }));

const isFinite = (t: Toolpath): boolean =>
  [t.x, t.y, t.z, t.cx, t.cy, t.feed].every((values) => values.every(Number.isFinite));
