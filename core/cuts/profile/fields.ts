import { fieldsFor, type SettingsOf } from "../../settings/list.ts";
import { placesField } from "../../settings/places.ts";
import { formatLength } from "../../units.ts";
import { sideField } from "../contour/fields.ts";
import { directionField, leaveField, rampField, rateFields, stepdownField } from "../fields.ts";
import type { CutContext } from "../kind.ts";

/** How deep it goes, mm. */
export const depthOf = (c: CutContext, s: { through: boolean; past: number; depth: number }): number =>
  s.through ? c.stock.thickness + s.past : s.depth;
const biteOf = (c: CutContext, s: Parameters<typeof depthOf>[1] & { stepdown: number }) => ({
  depth: Math.min(s.stepdown, depthOf(c, s)),
  width: c.cutter.diameter,
});
const hasTabs = (s: { tabs: number; tabsAt: string }): boolean => s.tabs > 0 || s.tabsAt !== "";

export const profileFields = fieldsFor<CutContext>()
  .with(sideField("a piece cut free"))
  .switch("through", "Through the stock", { auto: () => ({ value: true, reason: "a cut-out" }) })
  .length("depth", "Depth", {
    min: 0.01,
    max: 200,
    step: 0.1,
    when: (s) => s.through === false,
    auto: (c) => ({ value: Math.round((c.stock.thickness / 2) * 100) / 100, reason: "half the stock" }),
    consequence: (v, c) =>
      `leaves ${formatLength(Math.max(0, c.stock.thickness - v))} of ${formatLength(c.stock.thickness)} mm`,
  })
  .length("past", "Past the underside", {
    help: "Cuts a little into the board below, so that no skin is left. Put a spoil board under the stock.",
    min: 0,
    max: 5,
    step: 0.05,
    more: true,
    when: (s) => s.through === true,
    auto: () => ({ value: 0.2, reason: "leaves no skin; needs a spoil board" }),
  })
  .with(stepdownField(depthOf))
  .number("tabs", "Tabs on each piece", {
    help: "Short bridges that hold the piece until you cut it free.",
    min: 0,
    max: 40,
    step: 1,
    when: (s) => s.through === true,
    auto: (_c, s) => ({
      value: s.through ? 4 : 0,
      reason: s.through ? "holds a piece on every side" : "the piece stays in the stock",
    }),
  })
  .with(
    placesField(
      "tabsAt",
      "Tabs by hand",
      "Places on the stock, mm, where tabs stand instead of the automatic ones.",
      "tabs",
      (s: { through: boolean }) => s.through,
    ),
  )
  .length("tabWidth", "Tab width", {
    min: 0.5,
    max: 50,
    step: 0.5,
    more: true,
    when: hasTabs,
    auto: (c) => ({ value: Math.max(4, c.cutter.diameter), reason: "about the cutter's diameter" }),
  })
  .length("tabHeight", "Tab thickness", {
    min: 0.2,
    max: 50,
    step: 0.1,
    more: true,
    when: hasTabs,
    auto: (c) => ({
      value: Math.round(Math.min(2, c.stock.thickness / 3) * 10) / 10,
      reason: "strong enough to hold, thin enough to saw",
    }),
  })
  .choice("tabShape", "Tab shape", {
    options: [
      { value: "ramped", label: "ramped" },
      { value: "square", label: "square" },
    ],
    more: true,
    when: hasTabs,
    auto: () => ({ value: "ramped", reason: "the cutter climbs over without stopping" }),
  })
  .length("skin", "Onion skin", {
    help:
      "Every contour is first cut down to a skin this thick that holds the pieces, then all skins are cut " +
      "through last. 0 for none.",
    min: 0,
    max: 5,
    step: 0.05,
    when: (s) => s.through === true,
    auto: () => ({ value: 0, reason: "tabs hold the pieces" }),
  })
  .length("lastPass", "Last pass", {
    help: "Left on the wall by all passes but the last, which takes it at full depth. 0 for none.",
    min: 0,
    max: 5,
    step: 0.05,
    more: true,
    when: (s) => s.side !== "on",
    auto: () => ({ value: 0, reason: "each pass cuts to size" }),
  })
  .length("lead", "Lead-in", {
    help:
      "Radius of the arc by which the cutter comes onto the wall from the waste, so that it leaves no mark. 0: " +
      "it sinks along the contour.",
    min: 0,
    max: 50,
    step: 0.5,
    more: true,
    when: (s) => s.side !== "on",
    auto: () => ({ value: 0, reason: "sinks along the contour" }),
  })
  .with(leaveField)
  .with(directionField)
  .with(rampField)
  .with(rateFields(biteOf));
export type ProfileSettings = SettingsOf<typeof profileFields>;
