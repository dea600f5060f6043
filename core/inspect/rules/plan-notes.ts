import { choosable } from "../../cuts/register.ts";
import type { CutResult } from "../../job/plan.ts";
import type { Finding, Rule } from "../finding.ts";

/** What the cuts themselves noticed while planning. */
export const planNotes: Rule = ({ build }) =>
  build.cuts
    .filter((c) => c.cut.on)
    .flatMap((c) =>
      c.notes.map(({ helper, hangsOnCutter, ...n }) => {
        const cure = helper
          ? { id: c.id, helper: helper.kind, label: helper.label }
          : hangsOnCutter && otherCutters(c, build.cuts);
        return { ...n, cut: c.id, ...(cure && { cure }) };
      }),
    );

/** Choosing anew for the cut whose cutters they are: the one that this one helps, or itself. */
function otherCutters({ cut }: CutResult, cuts: readonly CutResult[]): Finding["cure"] {
  const about = cuts.find((c) => c.id === cut.target)?.cut ?? cut;
  const way = choosable(about.kind);
  const isChosen = way && (about === cut ? way.own : way.help?.kind === cut.kind);
  return isChosen ? { id: about.id, chooses: true, label: "Choose other cutters" } : undefined;
}
