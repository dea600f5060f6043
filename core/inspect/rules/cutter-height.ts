import { profileOf } from "../../cutters/profile.ts";
import type { CutResult } from "../../job/plan.ts";
import { formatLength } from "../../units.ts";
import type { Finding, Rule } from "../finding.ts";
import { widestPlace } from "../widest.ts";

/** Less than this is rounding, mm. */
const SLACK = 0.01;

/** Cuts deeper than their cutter reaches: its shank or its holder runs into the wall, or its edge ends above. */
export const cutterHeight: Rule = ({ build }) =>
  build.cuts
    .filter((c) => c.cut.on && c.toolpath.kind.length > 0)
    .flatMap((c) => beyondReach(c) ?? beyondEdge(c) ?? []);

/** How deep it really goes, mm: what is asked of it and not wide enough is not gone to. */
function depthOf({ intent, figures, facts }: CutResult, edge: number): number {
  const wanted = Math.max(-figures.minZ, intent.through ? 0 : (intent.depth ?? 0));
  if (facts.widest === undefined) return wanted;
  return Math.min(wanted, facts.deepest + (wanted > edge ? wanted : 0));
}

/** Cutters with upright sides: beside a wall as deep as they reach, what holds them is in it. */
const UPRIGHT = new Set(["flat", "ball", "drill"]);

/** Deeper than the cutter stands out below what is wider than it is. */
function beyondReach(c: CutResult): Finding | null {
  const { reach, shank, diameter, kind } = c.cut.cutter;
  if (reach === undefined) return null;
  const deep = -c.figures.minZ;
  if (deep <= reach + SLACK) return null;
  const isShank = shank !== undefined && shank > diameter;
  const holder = isShank ? `its shank, ${formatLength(shank)} mm wide,` : "its holder";
  return {
    code: "shank-at-wall",
    // Over a surface the walls may slope away from it; beside an upright one it surely hits.
    severity: UPRIGHT.has(kind) && c.intent.depth !== null ? "stop" : "warning",
    message:
      `${c.cut.name} goes ${formatLength(deep)} mm deep; its cutter stands out ${formatLength(reach)} mm, and ` +
      `${holder} would run into the wall. Use a longer cutter, or go less deep.`,
    cut: c.id,
    at: widestPlace(c),
  };
}

/** Deeper than the cutter's edge is long: above it there is nothing that cuts. */
function beyondEdge(c: CutResult): Finding | null {
  const edge = Math.min(profileOf(c.cut.cutter).height, c.cut.cutter.fluteLength + 1e-9);
  const depth = depthOf(c, edge);
  if (c.intent.depth === null || depth <= edge + SLACK) return null;
  return {
    code: "deeper-than-cutter",
    severity: "warning",
    message:
      `${c.cut.name} is to go ${formatLength(depth)} mm deep; its cutter's edge is ${formatLength(edge)} mm ` +
      `long. Use a longer cutter${c.intent.through ? "" : " or raise the floor"}.`,
    cut: c.id,
    at: widestPlace(c),
  };
}
