import { formatLength } from "../../units.ts";
import type { Finding, Rule } from "../finding.ts";
import { shapesOf } from "../products.ts";

/** Shapes that crossed or touched themselves, or lay on themselves twice, and were mended. */
export const mendedOutline: Rule = ({ build }) =>
  shapesOf(build).flatMap(({ making, product }): Finding[] => {
    const { mendedAt, traced } = product;
    if (mendedAt.length === 0) return [];
    const [first] = mendedAt;
    const place = `x ${formatLength(first.x, "mm", 1)}, y ${formatLength(first.y, "mm", 1)} mm`;
    // Both edges of a crossing are listed.
    const more = Math.ceil(mendedAt.length / 2) - 1;
    const others = more > 0 ? ` and in ${more} more ${more === 1 ? "place" : "places"}` : "";
    return [
      {
        code: "outline-mended",
        severity: "note",
        message:
          `${making.name} crossed or touched itself near ${place}${others}. It was mended: what its lines enclose is ` +
          "one area.",
        ...(traced && { cure: { id: making.id, field: "hold" } }),
        at: first,
      },
    ];
  });
