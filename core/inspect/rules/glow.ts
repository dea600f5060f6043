import { formatLength } from "../../units.ts";
import type { Finding, Rule } from "../finding.ts";
import { productsOf } from "../products.ts";

/** A sheet that lets less of the lamp's light through than this at its thinnest glows only in a dark room. */
const GLOWS = 0.15;
/** … and as thin as this many λ it lets a third through. */
const BRIGHT = 1.1;
/** Thinner sheets break when they are cut or held, mm. */
const LEAST_SHEET = 0.4;
/** Where black lets more of white's light through than this, the picture is pale. */
const PALE = 0.25;

const percent = (share: number): string => `${Math.round(100 * share)} %`;

/** A lithophane that will not glow, will not hold, or will look pale. */
export const glow: Rule = ({ build }) =>
  productsOf(build, "heights").flatMap(({ making: { id }, kind: { handles }, product: { litho } }): Finding[] => {
    // Told where it can be cured: a step wedge takes its law from a lithophane.
    if (!litho || !handles.thin || !handles.thick) return [];
    const { thin, thick, lambda } = litho;
    const out: Finding[] = [];
    const through = Math.exp(-thin / lambda);
    if (through < GLOWS) {
      const value = Math.max(LEAST_SHEET, Math.round(lambda * BRIGHT * 20) / 20);
      out.push({
        code: "too-thick-to-glow",
        severity: "warning",
        message:
          `At its thinnest, ${formatLength(thin)} mm, the sheet lets only ${percent(through)} of the lamp's light ` +
          "through: it glows in a dark room alone. Make it thinner, or take a clearer material.",
        cure: { id, field: handles.thin, value, label: `Thinnest ${formatLength(value)} mm` },
      });
    }
    if (thin < LEAST_SHEET)
      out.push({
        code: "too-thin-sheet",
        severity: "warning",
        message:
          `At its thinnest the sheet is ${formatLength(thin)} mm: under ${LEAST_SHEET} mm it breaks when it is cut ` +
          "or held. Leave it thicker.",
        cure: { id, field: handles.thin, value: LEAST_SHEET, label: `Thinnest ${LEAST_SHEET} mm` },
      });
    const black = Math.exp(-(thick - thin) / lambda);
    if (black > PALE)
      out.push({
        code: "pale-lithophane",
        severity: "warning",
        message:
          `Black lets ${percent(black)} of white's light through: the picture stays pale. Make the thickest ` +
          "thicker, on a thicker sheet where this one ends, or take a cloudier material.",
        cure: { id, field: handles.thick },
      });
    return out;
  });
