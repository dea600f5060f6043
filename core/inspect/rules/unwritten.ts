import type { Finding, Rule } from "../finding.ts";

/** Letters of words that their face does not have: a name would be cut without them. */
export const unwritten: Rule = ({ build }) =>
  [...build.makings.values()].flatMap(({ making, product }): Finding[] => {
    if (product.is !== "shapes" || !product.unwritten?.length) return [];
    return [
      {
        code: "letters-missing",
        severity: "warning",
        message:
          `${making.name}: its face does not have ${product.unwritten.join(" ")}, so the words are cut without. ` +
          "Choose another face, or write them otherwise.",
        cure: { id: making.id, field: "face" },
      },
    ];
  });
