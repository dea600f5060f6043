import { LUMA, PLAIN_TONE } from "../../picture/tone.ts";
import { fieldsFor, type SettingsOf } from "../../settings/list.ts";
import { defineMaking } from "../kind.ts";
import { later } from "../../later.ts";

interface ToneContext {
  /** mm per pixel of the whole picture */
  scale: number;
}

/** Starting points for the channels. */
const MIXES = {
  eye: { label: "as the eye sees", weights: [LUMA.r, LUMA.g, LUMA.b], reason: "brightness as the eye weighs colours" },
  even: { label: "all alike", weights: [1 / 3, 1 / 3, 1 / 3], reason: "every channel counts the same" },
  red: { label: "red only", weights: [1, 0, 0], reason: "red ink vanishes, green and blue turn dark" },
  green: { label: "green only", weights: [0, 1, 0], reason: "leaves turn light, red turns dark" },
  blue: { label: "blue only", weights: [0, 0, 1], reason: "blue lines vanish, yellow and red turn dark" },
  sky: { label: "dark sky", weights: [0.9, 0.4, -0.3], reason: "less blue darkens a sky" },
} satisfies Record<string, { label: string; weights: [number, number, number]; reason: string }>;
type Mix = keyof typeof MIXES;

const weight = <K extends "red" | "green" | "blue">(key: K, label: string, i: number) =>
  fieldsFor<ToneContext, { mix: Mix }>().share(key, label, {
    help: `How much ${key} counts; only the proportion of the three matters.`,
    min: -1,
    max: 2,
    step: 0.02,
    slider: true,
    more: true,
    auto: (_c, s) => ({ value: MIXES[s.mix].weights[i], reason: MIXES[s.mix].reason }),
  });

type Plain = "black" | "white" | "dark" | "middle" | "light";
const share = <K extends Plain>(key: K, label: string, help: string, more: boolean, step = 0.01) =>
  fieldsFor<ToneContext>().share(key, label, {
    help,
    min: 0,
    max: 1,
    step,
    slider: true,
    more,
    auto: () => ({ value: PLAIN_TONE[key], reason: "as it is" }),
  });

const fields = fieldsFor<ToneContext>()
  .switch("invert", "Light parts are the ink", {
    help: "For pictures drawn light on dark.",
    auto: () => ({ value: false, reason: "dark on light, as most drawings are" }),
  })
  .choice("mix", "Colours to grey", {
    options: (Object.keys(MIXES) as Mix[]).map((value) => ({ value, label: MIXES[value].label })),
    help: "Which colours come out light and which dark.",
    auto: () => ({ value: "eye", reason: "a good start for most" }),
  })
  .with(share("black", "Black point", "Greys darker than this become black.", false))
  .with(share("white", "White point", "Greys lighter than this become white.", false))
  .length("even", "Even out lighting", {
    help:
      "Compares each spot with its own surroundings this wide, for a shadow across the page or a coin with " +
      "little contrast. Wider than the broadest stroke; 0 leaves it.",
    min: 0,
    max: 1000,
    step: 1,
    slider: true,
    auto: () => ({ value: 0, reason: "left as it is" }),
    consequence: (v, c) => (v > 0 ? `${Math.round(v / c.scale)} pixels` : "off"),
  })
  .length("smooth", "Smooth, keeping edges", {
    help: "Takes out noise and JPEG blocks but not edges; about the size of the noise.",
    min: 0,
    max: 50,
    step: 0.05,
    slider: true,
    auto: () => ({ value: 0, reason: "left as it is" }),
    consequence: (v, c) => (v > 0 ? `${Math.max(1, Math.round(v / c.scale))} pixels` : "off"),
  })
  .with(share("dark", "Curve: dark greys", "What the grey a quarter of the way from black becomes.", true))
  .with(share("middle", "Curve: middle greys", "What the grey half way becomes.", true))
  .with(share("light", "Curve: light greys", "What the grey three quarters of the way becomes.", true))
  .share("local", "Local contrast", {
    help: "Brings out what differs from its surroundings.",
    min: 0,
    max: 3,
    step: 0.05,
    slider: true,
    more: true,
    auto: () => ({ value: 0, reason: "left as it is" }),
  })
  .length("localWidth", "Surroundings", {
    help: "How wide the surroundings are for local contrast.",
    min: 0.1,
    max: 500,
    step: 1,
    more: true,
    when: (s) => s.local > 0,
    auto: (c) => ({ value: Math.round(40 * c.scale * 10) / 10 || 0.1, reason: "40 pixels" }),
  })
  .share("sharpen", "Sharpen", {
    help: "Adds to the difference between neighbouring pixels.",
    min: 0,
    max: 3,
    step: 0.05,
    slider: true,
    more: true,
    auto: () => ({ value: 0, reason: "left as it is" }),
  })
  .with(weight("red", "Red", 0))
  .with(weight("green", "Green", 1))
  .with(weight("blue", "Blue", 2));
export type Tone = SettingsOf<typeof fields>;

export const reads = { from: { gives: "raster", label: "Picture" } } as const;

const work = later(() => import("./make.ts"));

/** From a picture in colours to one in greys. */
export const tone = defineMaking({
  kind: "tone",
  title: "Tone",
  about: "turns colours to grey, and mends light and noise",
  reads,
  gives: "grey",
  fields,
  handles: {},
  context: ({ reads: { from } }): ToneContext => ({ scale: from.place.scale * from.shrunk }),
  make: work("make"),
});
