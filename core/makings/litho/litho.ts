import { lightOf } from "../../colour.ts";
import { lambdaFrom, type Step } from "../../height/wedge.ts";
import { Problem } from "../../problem.ts";
import { fieldsFor, type SettingsOf } from "../../settings/list.ts";
import { formatLength, numbersOf } from "../../units.ts";
import { sheetField } from "../height/fields.ts";
import { FROM_TONE, smoothField, type ToneContext } from "../height/levels.ts";
import { defineMaking } from "../kind.ts";
import { later } from "../../later.ts";

/** The thinnest that a sheet can be cut and held, mm. */
const THINNEST = 0.6;
/** λ of a material of which nothing is known: a middle of translucent plastics, mm. */
const USUAL_LAMBDA = 1;
/** Thicknesses of so many λ span what a lamp and a room let the eye tell apart. */
const USUAL_SPAN = 3;

/** Steps of a wedge as a person writes them. @throws Problem `bad-wedge` */
function stepsOf(text: string): Step[] {
  const n = numbersOf(text, "What a wedge showed");
  const steps = Array.from({ length: Math.floor(n.length / 2) }, (_, i) => ({
    thickness: n[2 * i],
    light: lightOf(n[2 * i + 1] / 100),
  }));
  const isRight = ({ thickness, light }: Step) => thickness > 0 && light >= 0 && light <= 1;
  const thicknesses = new Set(steps.map((s) => s.thickness));
  const isEnough = n.length === 0 || thicknesses.size > 1;
  if (n.length % 2 === 0 && isEnough && steps.every(isRight)) return steps;
  throw new Problem(
    "bad-wedge",
    "What a wedge showed: write two steps or more, each as its thickness in mm and the printed grey that it equals " +
      "in percent, such as 0.6 100, 1.4 63, 2.2 38.",
  );
}

const fields = fieldsFor<ToneContext>()
  .with(sheetField)
  .length("thin", "Thinnest", {
    help: "How thick the sheet stays where the picture is white.",
    min: 0.1,
    max: 50,
    step: 0.05,
    slider: true,
    auto: (_, s) => ({
      value: Math.min(THINNEST, Math.round(s.sheet * 30) / 100 || 0.1),
      reason: "thin enough to glow, thick enough to hold",
    }),
  })
  .text("measured", "What a wedge showed", {
    help:
      "Cut a step wedge (Make from it), hold it to the light, and write for each step its thickness in mm and the " +
      "printed grey it equals in percent, 100 white: 0.6 100, 1.4 63, 2.2 38. The light law is fitted to them.",
    drawn: "words",
    more: true,
    example: "0.6 100, 1.4 63, 2.2 38",
    check: (t) => void stepsOf(t),
    auto: () => ({ value: "", reason: "no wedge was cut yet" }),
  })
  .length("lambda", "Light falls to a third in", {
    help:
      "λ of the sheet: light behind a thickness t is exp(−t/λ). Cut a step wedge and hold it to the light " +
      "to find your sheet's own.",
    min: 0.02,
    max: 50,
    step: 0.05,
    auto: ({ board }, s) => {
      const { name, lambda } = board.material;
      const fit = lambdaFrom(stepsOf(s.measured));
      if (fit)
        return {
          value: Math.round(fit.lambda * 1000) / 1000,
          reason: `fitted to your wedge, whose steps stray by ${Math.round(100 * fit.strays)} % at most`,
        };
      if (lambda === undefined)
        return { value: USUAL_LAMBDA, reason: "a middle of translucent plastics; this material's own is not known" };
      return { value: lambda, reason: `as the table of materials has it for ${name.toLowerCase()}` };
    },
  })
  .length("thick", "Thickest", {
    help: "How thick the sheet stays where the picture is black.",
    min: 0.1,
    max: 50,
    step: 0.05,
    slider: true,
    auto: (_, s) => ({
      value: Math.round(Math.max(s.thin, Math.min(s.sheet, s.thin + USUAL_SPAN * s.lambda)) * 100) / 100,
      reason: "the sheet's own thickness, or where it lets a twentieth of the light through",
    }),
    consequence: (v, _, s) =>
      `black lets ${Math.round(100 * Math.exp(-(v - s.thin) / s.lambda))} % of white's light through`,
  })
  .choice("law", "Greys become", {
    options: [
      { value: "light", label: "light, by the sheet's law" },
      { value: "straight", label: "thickness, evenly" },
    ],
    help: "By light, the glowing sheet has the picture's own tones. Evenly, thickness falls with the grey.",
    auto: () => ({ value: "light", reason: "the picture's own tones when it glows" }),
  })
  .switch("mirror", "Seen from the back", {
    help: "Mirrored, for a sheet that is looked at from the side that was not cut.",
    auto: () => ({ value: false, reason: "seen from the side that is cut" }),
  })
  .with(smoothField(1))
  .length("rim", "Rim", {
    help: "A flat rim this wide at the sheet's full thickness.",
    min: 0,
    max: 100,
    step: 0.5,
    auto: () => ({ value: 0, reason: "the picture runs to its edge" }),
    consequence: (v) => (v > 0 ? `${formatLength(v)} mm on every side` : ""),
  });
export type LithoSettings = SettingsOf<typeof fields>;

const work = later(() => import("./make.ts"));

/** A picture as a sheet that is thinner where light is to come through. */
export const litho = defineMaking({
  kind: "litho",
  title: "Lithophane",
  about: "a sheet that is thinner where light is to come through",
  reads: FROM_TONE,
  gives: "heights",
  glows: true,
  fields,
  handles: { rim: { width: "rim" }, thin: "thin", thick: "thick" },
  context: work("toneContext"),
  make: work("make"),
});
