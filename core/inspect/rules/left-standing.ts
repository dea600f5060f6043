import { CUTS } from "../../cuts/register.ts";
import { formatLength } from "../../units.ts";
import type { Finding, Rule } from "../finding.ts";

/** Less than this much left is not worth a word, mm² and share of the cut's area. */
const LEAST_AREA = 1;
const LEAST_SHARE = 0.001;
/** More than this share of the shape lost is more than a blemish. */
const GRAVE = 0.02;

/** Whether another kind of cut takes what this one leaves. */
const hasRest = (kind: string): boolean => CUTS.some((k) => k.helps?.kind === kind && k.helps.comes === "after");

/** Stock that the proof shows standing above what a cut was asked for: corners out of reach, floors not cut. */
export const leftStanding: Rule = ({ build }) =>
  build.cuts.flatMap((c, i): Finding[] => {
    const l = build.lost?.cuts[i];
    if (!l || l.area <= 0) return [];
    const out: Finding[] = [];
    const says = (area: number) => `${formatLength(area, "mm", 1)} mm² (${((100 * area) / l.area).toFixed(1)} %)`;
    if (l.uncut > LEAST_AREA && l.uncut > LEAST_SHARE * l.area)
      out.push({
        code: "floor-uncut",
        severity: "warning",
        message:
          `${says(l.uncut)} of ${c.cut.name}'s floor stays up to ${formatLength(l.uncutHeight)} mm too high: ` +
          "more than the ridge asked for. Switch its clearing cuts on, or lower the ridge.",
        cut: c.id,
        at: l.uncutAt,
      });
    if (l.lost > LEAST_AREA && l.lost > LEAST_SHARE * l.area)
      out.push({
        code: "out-of-reach",
        severity: l.lost > GRAVE * l.area ? "warning" : "note",
        message:
          `${says(l.lost)} of ${c.cut.name} is out of its cutter's reach and stays up to ` +
          `${formatLength(l.lostHeight)} mm high. ` +
          `${hasRest(c.kind.kind) ? "Add a rest cut with a smaller cutter" : "Use a finer cutter"} if it ` +
          "matters.",
        cut: c.id,
        at: l.lostAt,
      });
    return out;
  });
