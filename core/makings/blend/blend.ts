import { fieldsFor, type SettingsOf } from "../../settings/list.ts";
import { defineMaking } from "../kind.ts";
import { later } from "../../later.ts";

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
export type BlendSettings = SettingsOf<typeof fields>;

export const reads = {
  first: { gives: "heights", label: "First surface" },
  second: { gives: "heights", label: "Second surface", optional: true },
  inside: { gives: "shapes", label: "Only inside", optional: true },
} as const;

const work = later(() => import("./make.ts"));

/** Two surfaces as one, everywhere or inside shapes. */
export const blend = defineMaking({
  kind: "blend",
  title: "Blend",
  about: "makes one surface of two, everywhere or inside shapes",
  reads,
  gives: "heights",
  fields,
  handles: {},
  context: ({ reads: { second, inside } }): BlendContext => ({ hasOther: second !== null, hasMask: inside !== null }),
  make: work("make"),
});
