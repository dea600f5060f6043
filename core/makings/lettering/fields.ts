import type { boundsOf } from "../../geometry/rings.ts";
import { type Face, FACES, type LaidLine, USUAL_FACE } from "../../lettering/face.ts";
import { Problem } from "../../problem.ts";
import type { Settings } from "../../settings/fields.ts";
import { fieldsFor, type SettingsOf } from "../../settings/list.ts";
import { formatLength } from "../../units.ts";
import type { BoardSize } from "../kind.ts";
import { even } from "../placing.ts";
import { type Layout, lengthOf, type Setting } from "./layout.ts";

/** Words, the face that they are set in, and how they stand. */
type Written = Setting & { text: string; face: string };

export interface LetteringContext {
  board: BoardSize;
  person: string | null;
  face(id: string): Face;
  lines(id: string, text: string): readonly LaidLine[];
  layout(s: Written): Layout;
  /** the box of the shapes that it stands below, mm; null where there are none */
  beside: ReturnType<typeof boundsOf> | null;
}

/** More letters than anyone carves at once. */
const MOST_LETTERS = 500;
/** @throws Problem `bad-setting` for more letters than are set at once: a job's file may hold any */
export function checkWords(text: string): void {
  if (text.length > MOST_LETTERS)
    throw new Problem("bad-setting", `Words: at most ${MOST_LETTERS} letters are taken at once.`);
}
/** Capitals take this share of the board by themselves: alone, and below other shapes. */
const ALONE = 0.5;
const BELOW = 0.12;
const LEAST_HEIGHT = 0.5;
/** Words below shapes keep this share of their capitals away from them. */
const GAP = 0.6;
/** Letters such as g and Q reach this share of the capitals below the line. */
const DESCENT = 0.45;
/** From line to line, in capitals: more than any of the faces has. */
const ROOMY_PITCH = 2;
/** A line bent by itself takes a third of its circle. */
const OF_CIRCLE = 1 / 3;

export const fields = fieldsFor<LetteringContext>()
  .text("text", "Words", {
    help: "What is written; Enter begins a new line.",
    example: "Quill & Thistle",
    drawn: "lines",
    check: checkWords,
    auto: ({ person }) =>
      person ? { value: person, reason: "whose piece it is" } : { value: "Name", reason: "until you write something" },
  })
  .choice("face", "Letters", {
    options: FACES,
    help: "The face that the words are set in. All of them ship with Oaken Bit.",
    auto: () => ({ value: USUAL_FACE, reason: "open shapes that stay legible when they are carved" }),
  })
  .choice("along", "Stand on", {
    options: [
      { value: "line", label: "a straight line" },
      { value: "over", label: "a circle, above it" },
      { value: "under", label: "a circle, inside its lower half" },
    ],
    auto: () => ({ value: "line", reason: "straight" }),
  })
  .length("spread", "Between letters", {
    help: "Added between neighbouring letters; less than 0 moves them together.",
    min: -20,
    max: 200,
    step: 0.1,
    more: true,
    auto: () => ({ value: 0, reason: "as the face has it" }),
  })
  .length("height", "Height of capitals", {
    help: "From the baseline to the top of a capital letter.",
    min: LEAST_HEIGHT,
    max: 2000,
    step: 0.5,
    slider: true,
    auto: fittingHeight,
    consequence: (v, c, s) => `the longest line ${formatLength(even(longestOf(c, s, v)))} mm`,
  })
  .length("pitch", "Line to line", {
    help: "From one baseline to the next.",
    min: 0.5,
    max: 2000,
    step: 0.5,
    more: true,
    auto: (c, s) => {
      const { pitch, capital } = c.face(s.face);
      return { value: even((pitch / capital) * s.height), reason: "as the face has it" };
    },
  })
  .choice("align", "Lines", {
    options: [
      { value: "left", label: "begin together" },
      { value: "centre", label: "centred" },
      { value: "right", label: "end together" },
    ],
    more: true,
    auto: () => ({ value: "centre", reason: "as on a sign" }),
  })
  .length("radius", "Circle's radius", {
    help: "Of the circle that the first line stands on.",
    min: 1,
    max: 20_000,
    step: 1,
    when: (s) => s.along !== "line",
    auto: (c, s) => ({ value: fittingRadius(c, s), reason: "no line goes farther round than a third of its circle" }),
  })
  .length("x", "From the left", {
    help: "Its left edge from the stock's left edge.",
    min: -5000,
    max: 5000,
    step: 0.5,
    auto: (c, s) => {
      const { width } = c.layout(s);
      if (!c.beside) return { value: even((c.board.width - width) / 2), reason: "centred" };
      return { value: even((c.beside.minX + c.beside.maxX - width) / 2), reason: "centred below the shapes" };
    },
  })
  .length("y", "From the front", {
    help: "The lowest baseline from the stock's near edge; on a circle, its nearest edge.",
    min: -5000,
    max: 5000,
    step: 0.5,
    auto: (c, s) => {
      const { height } = c.layout(s);
      if (!c.beside) return { value: even((c.board.height - height) / 2), reason: "centred" };
      const below = c.beside.minY - height - GAP * s.height;
      const least = c.board.margin + (s.along === "line" ? DESCENT * s.height : 0);
      if (below >= least) return { value: even(below), reason: "below the shapes" };
      return { value: even(least), reason: "at the margin: below the shapes there is no room" };
    },
  });

/** Length of the longest line for a height of capitals, mm. */
function longestOf(c: LetteringContext, s: Pick<Written, "text" | "face" | "spread">, height: number): number {
  const face = c.face(s.face);
  return Math.max(...c.lines(s.face, s.text).map((line) => lengthOf(line, face, height, s.spread)));
}

/** Capitals as high as the board lets them be, and no higher than looks well. */
function fittingHeight(
  c: LetteringContext,
  s: Pick<Written, "text" | "face" | "along" | "spread">,
): { value: number; reason: string } {
  const { board } = c;
  const lines = c.lines(s.face, s.text).length;
  const share = c.beside ? BELOW : ALONE;
  const high = (share * board.height) / lines;
  const across = board.width - 2 * board.margin;
  // A line's length grows with its height from what is added between letters on.
  const added = longestOf(c, s, 0);
  const long = longestOf(c, s, high) - added;
  const wide = long + added <= across ? high : (high * Math.max(0, across - added)) / long;
  const value = s.along === "line" ? wide : Math.min(wide, highestBent(c, s, long / high, added));
  let reason = `${Math.round(100 * share)} % of the stock's height`;
  if (value < high) reason = value < wide ? "as the arch fits the stock" : "as wide as the stock lets it be";
  return { value: even(Math.max(LEAST_HEIGHT, value)), reason };
}

/**
 * The highest capitals with which lines on a circle, each a third of it round, stay inside the board's margin, mm.
 * @param perHeight how long the longest line is for each mm of its capitals, beside what is added between letters
 */
function highestBent(c: LetteringContext, s: Pick<Written, "text" | "face">, perHeight: number, added: number): number {
  const { board } = c;
  const face = c.face(s.face);
  // Of an arc: its rise and its chord for each mm along it, with r = 1/θ; its ends' letters lean outward.
  const angle = 2 * Math.PI * OF_CIRCLE;
  const rise = (1 - Math.cos(angle / 2)) / angle;
  const chord = (2 * Math.sin(angle / 2)) / angle;
  const stack = (face.pitch / face.capital) * c.lines(s.face, s.text).length;
  const [across, along] = [board.width - 2 * board.margin, board.height - 2 * board.margin];
  return Math.min(
    (along - rise * added) / (rise * perHeight + stack),
    (across - chord * added) / (chord * perHeight + 2 * Math.sin(angle / 2) * stack),
  );
}

/** The least radius on which no line goes farther round its circle than looks well, mm. */
function fittingRadius(c: LetteringContext, s: Omit<Written, "radius">): number {
  const face = c.face(s.face);
  // Over a circle each further line stands on a smaller one, under it on a larger.
  const inward = s.along === "over" ? s.pitch : -s.pitch;
  const wanted = c
    .lines(s.face, s.text)
    .map((line, k) => lengthOf(line, face, s.height, s.spread) / (2 * Math.PI * OF_CIRCLE) + k * inward);
  return even(Math.max(1, ...wanted));
}

/**
 * What words take of a board below the shapes that they stand under, mm: nothing where somebody put them elsewhere.
 * Found without setting them, since the shapes make room for them first.
 */
export function footOf(own: Settings, board: { height: number }): number {
  if (own.y !== undefined || (own.along ?? "line") !== "line") return 0;
  const lines = String(own.text ?? "").split("\n").length;
  const height = typeof own.height === "number" ? own.height : (BELOW * board.height) / lines;
  return even(height * (1 + GAP + DESCENT + (lines - 1) * ROOMY_PITCH));
}
export type LetteringSettings = SettingsOf<typeof fields>;
