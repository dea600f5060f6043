import { fieldsFor, type SettingsOf } from "../../settings/list.ts";
import { ToolpathWriter } from "../../toolpath/toolpath.ts";
import { formatLength } from "../../units.ts";
import { rateFields } from "../fields.ts";
import { finish } from "../finish/finish.ts";
import { type CutContext, type CutInputs, defineCut, HEIGHT_ART, type Planned, settingsOf } from "../kind.ts";
import { heightAsked, regionOf } from "../surface/asked.ts";
import { groundFor } from "../surface/ground.ts";
import { apartFor, cutRows, helpersAngle, passFields } from "../surface/passes.ts";
import { type Row, rowsOver, tipsAlong } from "../surface/rows.ts";
import { tipsOverLeft } from "../surface/standing.ts";

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
type RestFinishSettings = SettingsOf<typeof fields>;

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
  plan,
});

function plan(inputs: CutInputs<typeof HEIGHT_ART>, s: RestFinishSettings): Planned {
  const { art } = inputs.reads;
  const w = new ToolpathWriter(s.feed, s.plunge, inputs.machine.rapid);
  const region = regionOf(art.field, inputs.stock);
  if (!inputs.target) return { toolpath: w.take(), notes: [], facts: {}, within: region };
  const before = [inputs.target, ...inputs.earlier.filter((e) => e.kind === restfinish.kind)];
  const touching = tipsOverLeft(
    inputs,
    before.map(({ cutter }) => ({ cutter, leave: 0 })),
  );
  const apart = apartFor(inputs, s);
  const rows = rowsOver(groundFor(inputs, art, inputs.cutter, s.overrun), apart, s.angle);
  const stands = new Map(rows.map((row) => [row, tipsAlong(touching, row, row.lowest.length)]));
  const isCut = (row: Row) => (i: number) => stands.get(row)![i] - row.lowest[i] > s.above;
  cutRows(w, inputs, { ...s, apart, rows, isCut }, inputs.progress);
  let area = 0;
  for (const row of rows) {
    const isLeft = isCut(row);
    for (let i = 0; i < row.lowest.length; i++) if (isLeft(i)) area += row.step * apart;
  }
  return {
    toolpath: w.take(),
    notes: [],
    facts: { area },
    standsFor: apart / s.stepover,
    asked: heightAsked(art.field, region, s.ridge),
    within: region,
  };
}
