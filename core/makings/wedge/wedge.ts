import { fieldsFor } from "../../settings/list.ts";
import { formatLength } from "../../units.ts";
import { sheetField } from "../height/fields.ts";
import { type BoardSize, defineMaking } from "../kind.ts";
import { even } from "../placing.ts";
import type { HeightsProduct, Litho } from "../product.ts";

interface WedgeContext {
  board: BoardSize;
  litho: Litho | null;
}

/** Thinnest step where the lithophane does not say, mm. */
const THINNEST = 0.6;
/** Samples along the side of a step: its edges are upright, and all else is level. */
const SAMPLES = 40;

const fields = fieldsFor<WedgeContext>()
  .number("steps", "Steps", {
    help: "How many thicknesses stand side by side, evenly from the thinnest to the thickest.",
    min: 2,
    max: 24,
    step: 1,
    auto: () => ({ value: 8, reason: "enough to tell the light law by" }),
  })
  .with(sheetField)
  .length("thin", "Thinnest step", {
    min: 0.1,
    max: 50,
    step: 0.05,
    auto: ({ litho }) =>
      litho ? { value: litho.thin, reason: "as the lithophane" } : { value: THINNEST, reason: "thin enough to glow" },
  })
  .length("thick", "Thickest step", {
    min: 0.1,
    max: 50,
    step: 0.05,
    auto: ({ litho }, s) =>
      litho ? { value: litho.thick, reason: "as the lithophane" } : { value: s.sheet, reason: "the sheet's own" },
    consequence: (v, _, s) =>
      `steps of ${formatLength(Math.abs(v - s.thin) / Math.max(1, Math.round(s.steps) - 1))} mm`,
  })
  .length("side", "Side of a step", {
    min: 2,
    max: 200,
    step: 1,
    auto: ({ board }, s) => ({
      value: Math.max(2, Math.min(12, Math.floor((board.width - 2 * board.margin) / Math.round(s.steps)))),
      reason: "large enough to be told from its neighbours",
    }),
  })
  .length("x", "From the left", {
    min: -5000,
    max: 5000,
    step: 0.5,
    more: true,
    auto: ({ board }, s) => ({ value: even((board.width - Math.round(s.steps) * s.side) / 2), reason: "centred" }),
  })
  .length("y", "From the front", {
    min: -5000,
    max: 5000,
    step: 0.5,
    more: true,
    auto: ({ board }, s) => ({ value: even((board.height - s.side) / 2), reason: "centred" }),
  });

/** Steps of a sheet from thin to thick, to be cut and held to the light: they tell how its light falls. */
export const wedge = defineMaking({
  kind: "wedge",
  title: "Step wedge",
  about: "steps from thin to thick: cut on a rest of the sheet, they tell its light law",
  reads: { from: { gives: "heights", label: "Lithophane" } } as const,
  gives: "heights",
  glows: true,
  fields,
  handles: {},
  context: ({ reads: { from }, board }): WedgeContext => ({ board, litho: from.litho }),
  make({ reads: { from } }, s): HeightsProduct {
    const steps = Math.round(s.steps);
    const thicknesses = Array.from({ length: steps }, (_, i) => s.thin + ((s.thick - s.thin) * i) / (steps - 1));
    const width = steps * SAMPLES;
    const z = Float32Array.from({ length: width * SAMPLES }, (_, k) =>
      Math.min(0, thicknesses[Math.floor((k % width) / SAMPLES)] - s.sheet),
    );
    const field = { x0: s.x, y0: s.y, cell: s.side / SAMPLES, width, height: SAMPLES, z };
    return { is: "heights", field, picture: null, litho: from.litho };
  },
});
