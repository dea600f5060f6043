import { fieldsFor, type SettingsOf } from "../../settings/list.ts";
import { formatLength } from "../../units.ts";
import { rateFields } from "../fields.ts";
import { finish } from "../finish/finish.ts";
import { type CutContext, defineCut, HEIGHT_ART, settingsOf } from "../kind.ts";
import { helpersAngle, passFields } from "../surface/fields.ts";
import { later } from "../../later.ts";

/** Less than this above the surface is not worth another cutter, mm. */
const WORTH = 0.05;

const fields = fieldsFor<CutContext>()
  .length("above", "Where more is left than", {
    help: "The finer cutter goes only where the larger one left more than this above what it could cut itself.",
    min: 0.005,
    max: 5,
    step: 0.01,
    auto: (c) => {
      const ridge = settingsOf(finish, c.target)?.ridge ?? 0;
      if (2 * ridge > WORTH) return { value: 2 * ridge, reason: "twice the ridges that finishing leaves anyway" };
      return { value: WORTH, reason: "less does not show" };
    },
  })
  .with(helpersAngle)
  .with(passFields)
  .with(
    rateFields<{ stepover: number }>((c, s) => ({
      depth: c.cutter.diameter / 2,
      width: Math.min(c.cutter.diameter, s.stepover),
    })),
  );
export type RestFinishSettings = SettingsOf<typeof fields>;

const work = later(() => import("./plan.ts"));

/** Follows a surface with a finer cutter, only where the larger ones before it could not reach down. */
export const restfinish = defineCut({
  kind: "restfinish",
  title: "Rest of a surface",
  about: "where a finishing cutter did not reach",
  cutters: ["ball", "taper", "v", "flat", "form"],
  summary: (s) => `where over ${formatLength(s.above)} mm is left`,
  fields,
  reads: HEIGHT_ART,
  helps: {
    kind: "finish",
    comes: "after",
    label: "Take the rest with",
    wrongSide: (own, helped) =>
      `${own} takes the rest of ${helped} but comes before it: it would run into solid stock. Move it after.`,
  },
  handles: {},
  intent: () => ({ depth: null, through: false }),
  isGrainy: true,
  sample: { cutter: "ball:6", settings: { stepover: 2 }, helps: { kind: "finish", cutter: "ball:10" } },
  plan: work("plan"),
});
