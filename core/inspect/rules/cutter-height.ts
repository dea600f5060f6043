import { profileOf } from "../../cutters/profile.ts";
import { formatLength } from "../../units.ts";
import type { Finding, Rule } from "../finding.ts";
import { widestPlace } from "../widest.ts";

/** Cuts deeper than their cutter's cutting edge reaches. */
export const cutterHeight: Rule = ({ build }) => {
  const out: Finding[] = [];
  for (const c of build.cuts) {
    if (!c.cut.on || c.intent.depth === null) continue;
    const edge = Math.min(profileOf(c.cut.cutter).height, c.cut.cutter.fluteLength + 1e-9);
    const wanted = Math.max(-c.figures.minZ, c.intent.through ? 0 : c.intent.depth);
    const widest =
      c.facts.widest === undefined ? wanted : Math.min(wanted, c.facts.deepest + (wanted > edge ? wanted : 0));
    if (Math.min(wanted, widest) <= edge + 0.01) continue;
    const message =
      `${c.cut.name} is to go ${formatLength(wanted)} mm deep; its cutter's edge is ${formatLength(edge)} mm ` +
      `long. Use a longer cutter${c.intent.through ? "" : " or raise the floor"}.`;
    out.push({ code: "deeper-than-cutter", severity: "warning", message, cut: c.id, at: widestPlace(c) });
  }
  return out;
};
