import { plasmaFor } from "../../cutters/plasma.ts";
import { fieldsFor, type SettingsOf } from "../../settings/list.ts";
import { placesField } from "../../settings/places.ts";
import { sideField } from "../contour/fields.ts";
import type { CutContext } from "../kind.ts";

/** What a torch usually does in the sheet at hand. */
export const usualPlasma = (c: CutContext) => plasmaFor(c.material, c.stock.thickness);

export const plasmaFields = fieldsFor<CutContext>()
  .with(sideField("the ink is the part"))
  .choice("shape", "Lead", {
    options: [
      { value: "arc", label: "arc" },
      { value: "line", label: "line" },
      { value: "none", label: "none" },
    ],
    help: "The way from the pierce onto the contour. An arc comes onto it smoothly and leaves the smallest mark.",
    auto: () => ({ value: "arc", reason: "the smallest mark" }),
  })
  .length("lead", "Lead length", {
    help: "How far from the contour the pierce is: its blow-out must not reach the part.",
    min: 0,
    max: 50,
    step: 0.5,
    slider: true,
    when: (s) => s.shape !== "none",
    auto: (c) => ({
      value: Math.round(Math.max(3, 1.5 * c.cutter.diameter + c.stock.thickness) * 10) / 10,
      reason: "one and a half kerfs and the sheet's thickness",
    }),
  })
  .with(
    placesField(
      "leadsAt",
      "Pierces by hand",
      "Pierce places dragged on the stage, mm: the lead runs from there to the nearest place of the contour.",
      "pierce",
    ),
  )
  .length("overcut", "Overcut", {
    help: "Goes on this far past the contour's beginning, so that no cusp stays.",
    min: 0,
    max: 20,
    step: 0.5,
    more: true,
    auto: () => ({ value: 1, reason: "no cusp where the cut closes" }),
  })
  .length("pierceHeight", "Pierce height", {
    min: 0.5,
    max: 15,
    step: 0.1,
    more: true,
    auto: (c) => usualPlasma(c).pierceHeight,
  })
  .number("pierceDelay", "Pierce delay", {
    help: "Seconds the torch stands until it is through.",
    min: 0,
    max: 10,
    step: 0.1,
    more: true,
    auto: (c) => usualPlasma(c).pierceDelay,
  })
  .length("cutHeight", "Cut height", {
    min: 0.3,
    max: 10,
    step: 0.1,
    more: true,
    auto: (c) => usualPlasma(c).cutHeight,
  })
  .share("slowHoles", "Small holes at", {
    help: "Share of the feed in holes narrower than three sheet thicknesses.",
    min: 0.1,
    max: 1,
    step: 0.05,
    more: true,
    auto: () => ({ value: 0.6, reason: "keeps small holes round" }),
  })
  .share("slowCorners", "Corners at", {
    help: "Share of the feed close to sharp corners, where the machine slows anyway and the arc lags behind.",
    min: 0.1,
    max: 1,
    step: 0.05,
    more: true,
    auto: () => ({ value: 0.75, reason: "keeps corners sharp" }),
  })
  .number("linesMost", "Moves at most", {
    help:
      "What the controller's memory takes. The path is thinned until it fits; how far it then strays is said. " +
      "0: no limit.",
    min: 0,
    max: 1000000,
    step: 100,
    more: true,
    auto: () => ({ value: 0, reason: "no limit" }),
  })
  .feed("feed", "Feed", { min: 1, max: 100000, auto: (c) => usualPlasma(c).feed })
  .feed("plunge", "Down to cut height", {
    min: 1,
    max: 100000,
    more: true,
    auto: (c) => ({ value: c.machine.plungeMost, reason: "the machine's most" }),
  })
  .speed("spindle", "Spindle speed", {
    min: 0,
    max: 100000,
    when: () => false,
    auto: () => ({ value: 0, reason: "a torch has none" }),
  });
export type PlasmaSettings = SettingsOf<typeof plasmaFields>;
