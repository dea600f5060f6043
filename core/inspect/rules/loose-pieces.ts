import type { Finding, Rule } from "../finding.ts";

/** Pieces a cut sets free with nothing to hold them. A torch's drop onto the slats, as they should. */
export const loosePieces: Rule = ({ build }) =>
  build.cuts.flatMap((c): Finding[] => {
    if (!c.cut.on || !c.freed || c.freed.pieces === 0 || c.freed.heldBy !== null) return [];
    const one = c.freed.pieces === 1;
    const { tabs } = c.kind.handles;
    return [
      {
        code: "piece-comes-loose",
        severity: "warning",
        message:
          `${c.cut.name} cuts ${one ? "a piece" : `${c.freed.pieces} pieces`} free with no tab or ` +
          `skin to hold ${one ? "it" : "them"}: ${one ? "it" : "each"} can shift ` +
          "into the cutter. Set tabs, or an onion skin.",
        cut: c.id,
        ...(tabs && { cure: { id: c.id, field: tabs.field, value: tabs.usual, label: `Set ${tabs.usual} tabs` } }),
      },
    ];
  });
