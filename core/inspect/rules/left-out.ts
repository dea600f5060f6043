import type { Finding, Rule } from "../finding.ts";

/** Parts of a drawing or a solid that cannot be cut: text, pictures, lines that close nowhere; undercuts. */
export const leftOut: Rule = ({ build }) =>
  [...build.makings.values()].flatMap(({ making, product }): Finding[] => {
    if (!("leftOut" in product) || !product.leftOut?.length) return [];
    const said = product.leftOut.join("; ");
    if (product.is === "shapes")
      return [
        {
          code: "drawing-left-out",
          severity: "note",
          message: `${making.name} holds more than its shapes. Left out: ${said}.`,
        },
      ];
    return [{ code: "solid-left-out", severity: "note", message: `${making.name}: ${said}.` }];
  });
