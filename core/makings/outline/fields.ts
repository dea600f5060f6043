import { parseHex } from "../../colour.ts";
import { Problem } from "../../problem.ts";
import { fieldsFor, type SettingsOf } from "../../settings/list.ts";
import { parsePlaces } from "../../settings/places.ts";
import { formatLength } from "../../units.ts";

/** The settings that say where an outline's edges are. */
export interface Edges {
  trace: "ink" | "colours" | "centre";
  colours: number;
  ink: number;
  specks: number;
}

export interface OutlineContext {
  /** ink level found in the picture's own greys */
  found: number;
  /** mm per pixel */
  scale: number;
  /** how far noise, blended colours, compression or whole pixels move the edges that these settings find, px */
  noise(settings: Edges): number;
}

/** A fit no closer than so many spreads of the edge's own noise: hardly a point lies farther out. */
const HOLD_NOISE = 3;
/** A fit no closer than this share of a pixel, nor than HOLD_LEAST mm: closer only follows noise. */
const HOLD_PIXELS = 0.3;
const HOLD_LEAST = 0.02;
const HOLD_MOST = 0.15;

/** How closely an outline is held when nobody says: three tenths of a pixel, but no closer than its edge is known. */
function holdOf(c: OutlineContext, s: Edges): { value: number; reason: string } {
  const noise = c.noise(s);
  const [pixel, wobble] = [HOLD_PIXELS * c.scale, HOLD_NOISE * noise * c.scale];
  const value = Math.round(Math.max(HOLD_LEAST, Math.min(HOLD_MOST, pixel), wobble) * 1000) / 1000;
  const mm = (v: number): string => `${formatLength(v, "mm", 3)} mm`;
  const looser = "looser where greys hardly change";
  if (value < wobble + 0.001)
    return {
      value,
      reason: `the picture's edge wobbles by ${mm(noise * c.scale)}, and closer only follows that; ${looser}`,
    };
  if (pixel < HOLD_LEAST) return { value, reason: `closer only follows noise: a pixel is ${mm(c.scale)}; ${looser}` };
  return { value, reason: `three tenths of a pixel are ${mm(pixel)}; ${looser}` };
}

const isInk = (s: { trace: Edges["trace"] }): boolean => s.trace !== "colours";

/** Colours as the settings keep them: #rrggbb, commas between. @throws Problem `bad-setting` */
export function coloursOf(text: string): [number, number, number][] {
  return text
    .split(/[\s,;]+/)
    .filter(Boolean)
    .map((t) => {
      const c = parseHex(t);
      if (!c)
        throw new Problem("bad-setting", `Kept colours: "${t}" is not a colour. Write #rrggbb, with commas between.`);
      return c;
    });
}

/** Where the edges are: all that must be known to find them, and cheap to find out. */
export const edgeFields = fieldsFor<OutlineContext>()
  .choice("trace", "Trace", {
    options: [
      { value: "ink", label: "ink" },
      { value: "colours", label: "colours" },
      { value: "centre", label: "centre line" },
    ],
    help:
      "Ink: round everything darker than a grey. Colours: round the colours you choose. Centre line: one line " +
      "along the middle of every stroke, for engraving.",
    auto: () => ({ value: "ink", reason: "a drawing in one colour" }),
  })
  .number("colours", "Colours found", {
    help: "How many colours the picture is parted into.",
    min: 2,
    max: 16,
    step: 1,
    when: (s) => !isInk(s),
    auto: () => ({ value: 5, reason: "usual for a logo" }),
  })
  .text("keep", "Colours kept", {
    help: "The colours whose outline is wanted. Click them in the list or on the picture.",
    tool: "colours",
    when: (s) => !isInk(s),
    example: "#961e1e",
    check: (t) => void coloursOf(t),
    auto: () => ({ value: "", reason: "all but the ground along the picture's edge" }),
  })
  .share("ink", "Ink level", {
    help: "The grey at which ink begins: 0 is black, 100 % is white. Higher takes more in.",
    min: 0.004,
    max: 0.996,
    step: 0.004,
    slider: true,
    when: isInk,
    auto: (c) => ({
      value: Math.round(Math.max(0.01, Math.min(0.99, c.found)) * 250) / 250,
      reason: "parts the picture's greys into two groups best",
    }),
  })
  .area("specks", "Specks under", {
    help:
      "Pieces of ink smaller than this are dropped. By itself it keeps small ones that were drawn: as dark as the " +
      "ink, beside lettering or in a row.",
    min: 0,
    max: 100000,
    step: 0.1,
    auto: (c) => ({
      value: Math.round(Math.max(0.1, 9 * c.scale * c.scale) * 100) / 100,
      reason: "too small to cut, or nine pixels; what was drawn stays",
    }),
  })
  .area("pinholes", "Pinholes under", {
    help: "Holes in the ink smaller than this are filled.",
    min: 0,
    max: 100000,
    step: 0.1,
    auto: (_c, s) => ({ value: s.specks, reason: "as specks" }),
  });

export const outlineFields = edgeFields
  .length("hold", "Hold within", {
    help:
      "How far the fitted lines and curves may stray from the picture's edge. By itself it is looser where greys " +
      "hardly change.",
    min: 0.002,
    max: 5,
    step: 0.01,
    slider: true,
    auto: holdOf,
  })
  .angle("corner", "Corners from", {
    help: "Turns sharper than this stay corners; gentler ones become smooth.",
    min: 5,
    max: 175,
    step: 5,
    more: true,
    auto: () => ({ value: 40, reason: "keeps the corners of letters, smooths pixel steps" }),
  })
  .length("grow", "Grow strokes", {
    help: "Makes every stroke wider by this much on each side; less than 0 makes it thinner.",
    min: -50,
    max: 50,
    step: 0.05,
    slider: true,
    auto: () => ({ value: 0, reason: "as drawn" }),
    consequence: (v) =>
      v === 0
        ? "strokes keep their width"
        : `strokes ${formatLength(2 * Math.abs(v))} mm ${v > 0 ? "wider" : "thinner"}`,
  })
  .length("close", "Close gaps under", {
    help: "Gaps and slits narrower than this are filled, so that broken strokes join.",
    min: 0,
    max: 50,
    step: 0.05,
    more: true,
    auto: () => ({ value: 0, reason: "none closed" }),
  })
  .length("round", "Round corners to", {
    help: "Every corner gets this radius, such as the cutter's. Strokes narrower than twice of it are lost.",
    min: 0,
    max: 50,
    step: 0.05,
    more: true,
    auto: () => ({ value: 0, reason: "as drawn" }),
  })
  .number("nodesMost", "Nodes at most", {
    help:
      "Fewer nodes for a small controller: the hold widens until the limit is met. Corners and straight runs stay. 0 " +
      "for no limit.",
    min: 0,
    max: 1000000,
    step: 10,
    more: true,
    auto: () => ({ value: 0, reason: "no limit" }),
  })
  .length("bridges", "Bridges", {
    help:
      "Ties islands that would fall out when the ink is cut through: a strip this wide stays at the narrowest place. " +
      "0 for none.",
    min: 0,
    max: 100,
    step: 0.1,
    more: true,
    auto: () => ({ value: 0, reason: "none" }),
  })
  .text("bridgesAt", "Bridges by hand", {
    help: "Places on the picture, in pixels, where a bridge is wanted.",
    more: true,
    tool: "bridge",
    when: (s) => s.bridges > 0,
    example: "50 30",
    check: (t) => void parsePlaces(t, "Bridges"),
    auto: () => ({ value: "", reason: "each at its narrowest place" }),
  })
  .text("hide", "Hidden pieces", {
    help: "Pieces left out, each by a place inside it, in pixels of the picture.",
    more: true,
    tool: "hide",
    example: "120 30",
    check: (t) => void parsePlaces(t, "Hidden pieces"),
    auto: () => ({ value: "", reason: "none" }),
  })
  .text("only", "Pieces alone", {
    help:
      "Only these pieces, each by a place inside it, in pixels of the picture: what was split off from another " +
      "outline.",
    more: true,
    example: "50 20",
    check: (t) => void parsePlaces(t, "Pieces alone"),
    auto: () => ({ value: "", reason: "all" }),
  });
export type OutlineSettings = SettingsOf<typeof outlineFields>;
