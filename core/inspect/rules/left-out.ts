import type { Finding, Rule } from "../finding.ts";
import { shapesOf } from "../products.ts";

/** Parts of a drawing that have no shape to cut: text, pictures, lines that close nowhere. */
export const leftOut: Rule = ({ build }) =>
  shapesOf(build).flatMap(({ making, product }): Finding[] => {
    if (!product.leftOut?.length) return [];
    const message = `${making.name} holds more than its shapes. Left out: ${product.leftOut.join("; ")}.`;
    return [{ code: "drawing-left-out", severity: "note", message }];
  });
