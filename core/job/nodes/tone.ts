import { LUMA, PLAIN_TONE, type ToneSettings } from "../../picture/tone.ts";
import type { Field, Settings } from "../../settings/fields.ts";

export interface ToneContext {
  /** mm per pixel */
  scale: number;
}

/** Starting points for the channels. */
const MIXES: Record<string, { label: string; weights: [number, number, number]; reason: string }> = {
  eye: { label: "as the eye sees", weights: [LUMA.r, LUMA.g, LUMA.b], reason: "brightness as the eye weighs colours" },
  even: { label: "all alike", weights: [1 / 3, 1 / 3, 1 / 3], reason: "every channel counts the same" },
  red: { label: "red only", weights: [1, 0, 0], reason: "red ink vanishes, green and blue turn dark" },
  green: { label: "green only", weights: [0, 1, 0], reason: "leaves turn light, red turns dark" },
  blue: { label: "blue only", weights: [0, 0, 1], reason: "blue lines vanish, yellow and red turn dark" },
  sky: { label: "dark sky", weights: [0.9, 0.4, -0.3], reason: "less blue darkens a sky" },
};

const weight = (key: "red" | "green" | "blue", label: string, i: number): Field<ToneContext> => ({
  key,
  label,
  type: "share",
  help: `How much ${key} counts; only the proportion of the three matters.`,
  min: -1,
  max: 2,
  step: 0.02,
  slider: true,
  more: true,
  auto: (_c, s) => ({ value: MIXES[s.mix as string].weights[i], reason: MIXES[s.mix as string].reason }),
});

const share = (
  key: keyof ToneSettings,
  label: string,
  help: string,
  more: boolean,
  step = 0.01,
): Field<ToneContext> => ({
  key,
  label,
  type: "share",
  help,
  min: 0,
  max: 1,
  step,
  slider: true,
  more,
  auto: () => ({ value: PLAIN_TONE[key] as number, reason: "as it is" }),
});

export const toneFields: readonly Field<ToneContext>[] = [
  {
    key: "invert",
    label: "Light parts are the ink",
    type: "switch",
    help: "For pictures drawn light on dark.",
    auto: () => ({ value: false, reason: "dark on light, as most drawings are" }),
  },
  {
    key: "mix",
    label: "Colours to grey",
    type: "choice",
    options: Object.entries(MIXES).map(([value, m]) => ({ value, label: m.label })),
    help: "Which colours come out light and which dark.",
    auto: () => ({ value: "eye", reason: "a good start for most" }),
  },
  share("black", "Black point", "Greys darker than this become black.", false),
  share("white", "White point", "Greys lighter than this become white.", false),
  {
    key: "even",
    label: "Even out lighting",
    type: "length",
    help:
      "Compares each spot with its own surroundings this wide, for a shadow across the page or a coin with " +
      "little contrast. Wider than the broadest stroke; 0 leaves it.",
    min: 0,
    max: 1000,
    step: 1,
    slider: true,
    auto: () => ({ value: 0, reason: "left as it is" }),
    consequence: (v, c) => ((v as number) > 0 ? `${Math.round((v as number) / c.scale)} pixels` : "off"),
  },
  {
    key: "smooth",
    label: "Smooth, keeping edges",
    type: "length",
    help: "Takes out noise and JPEG blocks but not edges; about the size of the noise.",
    min: 0,
    max: 50,
    step: 0.05,
    slider: true,
    auto: () => ({ value: 0, reason: "left as it is" }),
    consequence: (v, c) => ((v as number) > 0 ? `${Math.max(1, Math.round((v as number) / c.scale))} pixels` : "off"),
  },
  share("dark", "Curve: dark greys", "What the grey a quarter of the way from black becomes.", true),
  share("middle", "Curve: middle greys", "What the grey half way becomes.", true),
  share("light", "Curve: light greys", "What the grey three quarters of the way becomes.", true),
  {
    key: "local",
    label: "Local contrast",
    type: "share",
    help: "Brings out what differs from its surroundings.",
    min: 0,
    max: 3,
    step: 0.05,
    slider: true,
    more: true,
    auto: () => ({ value: 0, reason: "left as it is" }),
  },
  {
    key: "localWidth",
    label: "Surroundings",
    type: "length",
    help: "How wide the surroundings are for local contrast.",
    min: 0.1,
    max: 500,
    step: 1,
    more: true,
    when: (s) => (s.local as number) > 0,
    auto: (c) => ({ value: Math.round(40 * c.scale * 10) / 10 || 0.1, reason: "40 pixels" }),
  },
  {
    key: "sharpen",
    label: "Sharpen",
    type: "share",
    help: "Adds to the difference between neighbouring pixels.",
    min: 0,
    max: 3,
    step: 0.05,
    slider: true,
    more: true,
    auto: () => ({ value: 0, reason: "left as it is" }),
  },
  weight("red", "Red", 0),
  weight("green", "Green", 1),
  weight("blue", "Blue", 2),
];

/** The tone step's settings in pixels. */
export const toneSettings = (v: Settings, c: ToneContext): ToneSettings => ({
  red: v.red as number,
  green: v.green as number,
  blue: v.blue as number,
  invert: v.invert as boolean,
  black: v.black as number,
  white: v.white as number,
  dark: v.dark as number,
  middle: v.middle as number,
  light: v.light as number,
  smooth: (v.smooth as number) > 0 ? Math.max(1, Math.round((v.smooth as number) / c.scale)) : 0,
  local: v.local as number,
  localRadius: Math.max(2, Math.round((v.localWidth as number) / c.scale / 2)),
  sharpen: v.sharpen as number,
  even: (v.even as number) > 0 ? Math.max(2, Math.round((v.even as number) / c.scale / 2)) : 0,
});
