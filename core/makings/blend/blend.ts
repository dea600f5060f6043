import { depthInside } from "../../geometry/nearedge.ts";
import { blended, spanOf } from "../../height/blend.ts";
import { softInside } from "../../height/soft.ts";
import { fieldsFor } from "../../settings/list.ts";
import { MOST_SAMPLES } from "../height/levels.ts";
import { defineMaking } from "../kind.ts";
import type { HeightsProduct } from "../product.ts";

interface BlendContext {
  hasOther: boolean;
  hasMask: boolean;
}

const fields = fieldsFor<BlendContext>()
  .choice("how", "Make one by", {
    options: [
      { value: "higher", label: "the higher of both" },
      { value: "lower", label: "the lower of both" },
      { value: "added", label: "adding their depths" },
      { value: "scaled", label: "scaling the first" },
      { value: "second", label: "the second alone" },
    ],
    help:
      "Adding: the second is cut into the first. Scaling: the first stays deep where the second is deepest, and " +
      "rises to the top where the second does.",
    auto: (c) =>
      c.hasMask
        ? { value: "second", reason: "the second inside the shapes, the first round them" }
        : { value: "added", reason: c.hasOther ? "the second as detail on the first" : "there is only one" },
  })
  .share("gain", "Of the second", {
    help: "How strongly the second surface counts: its depths are made so many times as deep.",
    min: 0,
    max: 4,
    step: 0.05,
    slider: true,
    auto: () => ({ value: 1, reason: "as deep as it is" }),
  })
  .length("soft", "Soft edge", {
    help: "Within this much of the edge of the shapes one surface passes into the other.",
    min: 0,
    max: 200,
    step: 0.5,
    slider: true,
    auto: () => ({ value: 0, reason: "a hard edge" }),
  });

/** Two surfaces as one, everywhere or inside shapes. */
export const blend = defineMaking({
  kind: "blend",
  title: "Blend",
  about: "makes one surface of two, everywhere or inside shapes",
  reads: {
    first: { gives: "heights", label: "First surface" },
    second: { gives: "heights", label: "Second surface", optional: true },
    inside: { gives: "shapes", label: "Only inside", optional: true },
  } as const,
  gives: "heights",
  fields,
  handles: {},
  context: ({ reads: { second, inside } }): BlendContext => ({ hasOther: second !== null, hasMask: inside !== null }),
  make({ reads: { first, second, inside } }, s): HeightsProduct {
    if (!second) return first;
    const cells = spanOf(first.field, second.field, MOST_SAMPLES);
    const deep = inside && depthInside(inside.ink, cells);
    const share = (k: number) => (deep ? softInside(deep[k], s.soft) : 1);
    const other = s.gain === 1 ? second.field : { ...second.field, z: second.field.z.map((v) => v * s.gain) };
    // What glowed does so no more once something else is cut into it: its law told thickness from light.
    return {
      is: "heights",
      field: blended(first.field, other, s.how, cells, share),
      picture: first.picture,
      litho: null,
    };
  },
});
