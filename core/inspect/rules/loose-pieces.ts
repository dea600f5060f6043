import type { Rule } from "../finding.ts";

/** Pieces a router cuts free with nothing to hold them. A torch may: its pieces drop onto the slats. */
export const loosePieces: Rule = ({ build }) =>
  build.cuts
    .filter(
      (c) =>
        c.cut.on &&
        c.cut.kind === "profile" &&
        c.values.through === true &&
        (c.facts.pieces ?? 0) > 0 &&
        c.facts.tabs === 0 &&
        !(c.facts.skin > 0),
    )
    .map((c) => ({
      code: "piece-comes-loose",
      severity: "warning",
      message:
        `${c.cut.name} cuts ${c.facts.pieces === 1 ? "a piece" : `${c.facts.pieces} pieces`} free with no tab or ` +
        `skin to hold ${c.facts.pieces === 1 ? "it" : "them"}: ${c.facts.pieces === 1 ? "it" : "each"} can shift ` +
        "into the cutter. Set tabs, or an onion skin.",
      cut: c.id,
      cure: { id: c.id, field: "tabs", value: 4, label: "Set 4 tabs" },
    }));
