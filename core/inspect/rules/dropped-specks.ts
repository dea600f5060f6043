import { formatLength } from "../../units.ts";
import type { ChainResult } from "../../job/chain.ts";
import type { Finding, Rule } from "../finding.ts";

/** Pieces and pinholes that were dropped for their size. */
export const droppedSpecks: Rule = ({ build }) => [...build.chains.values()].flatMap(check);

function check({ result, outline, values }: ChainResult): Finding[] {
  if (result.dropped === 0) return [];
  const n = result.dropped;
  return [
    {
      code: "dropped-specks",
      severity: "note",
      message:
        `${n} ${n === 1 ? "speck or pinhole" : "specks and pinholes"} under ` +
        `${formatLength(values[outline.id].specks as number)} mm² ${n === 1 ? "was" : "were"} dropped. Lower the ` +
        "limit if one of them matters.",
      cure: { id: outline.id, field: "specks" },
      at: { x: result.droppedAt[0], y: result.droppedAt[1] },
    },
  ];
}
