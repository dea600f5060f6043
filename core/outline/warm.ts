import { toGrey } from "../picture/tone.ts";
import { contoursAt } from "./contours.ts";
import { fitOutline } from "./outline.ts";

/**
 * The picture that is traced to warm up, px: cells with a figure each. Its width is no multiple of four, so that rows
 * are read as most pictures' are.
 */
const CELL = 48;
const WIDE = 5 * CELL + 1;
const HIGH = 3 * CELL;
/** Ink levels that it is traced at: what is compiled after the first time is compiled for what it met there. */
const LEVELS = [0.4, 0.5, 0.6, 0.45];

let warm = false;

/**
 * Draws and traces a small picture, for nothing but to have the engine compile the tracer: the first picture that
 * someone waits for then takes less than half as long. It goes the way of a picture, from pixels in colour on, and has
 * what pictures have: blank ground, straight and round edges, corners, thin strokes, holes, specks and grain. Where a
 * loop meets for the first time what it was not compiled for, it is interpreted again. Meant for the time in which that
 * picture is still being fetched or decoded; takes about a quarter of a second.
 */
export function warmUp(): void {
  if (warm) return;
  warm = true;
  const picture = figures();
  for (const level of LEVELS)
    fitOutline(
      contoursAt(toGrey(picture, {}), level),
      { scale: 1, x0: 0, y1: HIGH },
      { hold: 0.33, specks: 9, pinholes: 9, cornerAngle: 0.7, faint: true },
    );
}

/** Black figures with edges a pixel soft, on white. */
function figures() {
  const data = new Uint8Array(4 * WIDE * HIGH).fill(255);
  for (let k = 0; k < WIDE * HIGH; k++) {
    const [x, y] = [k % WIDE, Math.floor(k / WIDE)];
    const [column, row] = [Math.floor(x / CELL), Math.floor(y / CELL)];
    const outside = FIGURES[(column + 5 * row) % FIGURES.length](x % CELL, y % CELL, column + row);
    data.fill(Math.max(0, Math.min(255, 128 + 128 * outside)), 4 * k, 4 * k + 3);
  }
  return { width: WIDE, height: HIGH, data };
}

const MIDDLE = CELL / 2;

/** How far a place lies from the middle of its cell, px. */
const fromMiddle = (x: number, y: number) => Math.hypot(x - MIDDLE, y - MIDDLE);

/** How far a place lies outside a turned bar round the middle of its cell, px; less than 0 inside. */
function fromBar(x: number, y: number, turn: number, halfLong: number, halfWide: number): number {
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  const along = (x - MIDDLE) * c + (y - MIDDLE) * s;
  const across = (y - MIDDLE) * c - (x - MIDDLE) * s;
  return Math.max(Math.abs(along) - halfLong, Math.abs(across) - halfWide);
}

/** How far a place of a cell lies outside each figure, px; `turn` differs from cell to cell. */
const FIGURES: ((x: number, y: number, turn: number) => number)[] = [
  (x, y) => fromMiddle(x, y) - 17,
  (x, y) => Math.abs(fromMiddle(x, y) - 14) - 3,
  (x, y, turn) => fromBar(x, y, 0.3 + turn, 15, 11),
  (x, y, turn) => Math.min(fromBar(x, y, turn, 20, 1.2), fromBar(x, y, turn + 1.4, 19, 2.3)),
  (x, y) => fromMiddle(x, y) - 14 - 5 * Math.sin(5 * Math.atan2(y - MIDDLE, x - MIDDLE)),
  // Waves with grain.
  (x, y) => 2 * (8 * Math.sin(x / 5) * Math.cos(y / 6) + ((x * 31 + y * 17) % 13) / 6 - 1),
  // A square with a hole and a speck in it.
  (x, y) => Math.min(Math.max(fromBar(x, y, 0, 17, 17), 9 - fromMiddle(x, y)), fromMiddle(x, y) - 2),
  () => 1,
];
