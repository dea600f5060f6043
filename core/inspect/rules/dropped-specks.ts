import { formatLength } from "../../units.ts";
import type { Finding, Rule } from "../finding.ts";
import { shapesOf } from "../products.ts";

/** Pieces and pinholes that were dropped for their size. */
export const droppedSpecks: Rule = ({ build }) =>
  shapesOf(build).flatMap(({ making, product: { traced } }): Finding[] => {
    if (!traced || traced.result.dropped === 0) return [];
    const { dropped, droppedAt } = traced.result;
    return [
      {
        code: "dropped-specks",
        severity: "note",
        message:
          `${dropped} ${dropped === 1 ? "speck or pinhole" : "specks and pinholes"} under ` +
          `${formatLength(traced.specks)} mm² ${dropped === 1 ? "was" : "were"} dropped. Lower the ` +
          "limit if one of them matters.",
        cure: { id: making.id, field: "specks" },
        at: { x: droppedAt[0], y: droppedAt[1] },
      },
    ];
  });
