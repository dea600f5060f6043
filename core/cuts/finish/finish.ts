import { fieldsFor, type SettingsOf } from "../../settings/list.ts";
import { formatLength } from "../../units.ts";
import { rateFields } from "../fields.ts";
import { type CutContext, defineCut, HEIGHT_ART } from "../kind.ts";
import { passFields } from "../surface/fields.ts";
import { later } from "../../later.ts";

const fields = fieldsFor<CutContext>()
  .choice("way", "Lines", {
    options: [
      { value: "lines", label: "one way across" },
      { value: "crossed", label: "crossed" },
      { value: "rings", label: "rings" },
      { value: "spiral", label: "one spiral" },
    ],
    help: "Crossed lines take the ridges of the first, for twice the time. A spiral runs from the middle outward.",
    auto: () => ({ value: "lines", reason: "one set of lines shows every detail" }),
  })
  .angle("angle", "Angle", {
    help: "Of the lines, from left to right.",
    min: -180,
    max: 180,
    step: 5,
    when: (s) => s.way === "lines" || s.way === "crossed",
    auto: () => ({ value: 0, reason: "along the board" }),
  })
  .angle("second", "Second angle", {
    min: -180,
    max: 180,
    step: 5,
    when: (s) => s.way === "crossed",
    auto: (_, s) => ({ value: s.angle >= 0 ? s.angle - 90 : s.angle + 90, reason: "square to the first" }),
  })
  .with(passFields)
  .with(
    rateFields<{ stepover: number }>((c, s) => ({
      depth: leftFor(c),
      width: Math.min(c.cutter.diameter, s.stepover),
    })),
  );
export type FinishSettings = SettingsOf<typeof fields>;

/** What finishing takes off at once, mm: what roughing left, else as deep as the cutter usually goes. */
const leftFor = (c: CutContext): number => {
  const leave = c.helpers.map((h) => Number(h.settings.leave)).filter((v) => v > 0);
  return leave.length > 0 ? Math.min(...leave) : c.cutter.diameter / 2;
};

const work = later(() => import("./plan.ts"));

/** Follows a surface by lines with tips as low as the cutter may go, never below the surface. */
export const finish = defineCut({
  kind: "finish",
  title: "Finish",
  about: "follows a surface by close lines",
  cutters: ["ball", "taper", "v", "flat", "form"],
  summary: (s) => `lines ${formatLength(s.stepover)} mm apart`,
  fields,
  reads: HEIGHT_ART,
  handles: { crossed: { field: "way", value: "crossed" } },
  intent: () => ({ depth: null, through: false }),
  isGrainy: true,
  sample: { cutter: "ball:3", settings: { stepover: 1 } },
  estimate: work("estimate"),
  left: work("left"),
  plan: work("plan"),
});
