import { type Curve, placed } from "../../geometry/curve.ts";
import { boundsOf } from "../../geometry/rings.ts";
import type { Face, LaidLine } from "../../lettering/face.ts";
import { Problem } from "../../problem.ts";
import { formatLength } from "../../units.ts";

/** How the lines stand: beside each other's ends, and on what. */
export interface Setting {
  /** height of a capital letter, mm */
  height: number;
  /** added between letters, mm */
  spread: number;
  /** from one baseline to the next, mm */
  pitch: number;
  align: "left" | "centre" | "right";
  along: Along;
  /** of the circle that the first baseline follows, mm */
  radius: number;
}
export type Along = "line" | "over" | "under";

/** Lettering from 0, 0 on: its outlines, and the box that it is placed by, mm. */
export interface Layout {
  curves: Curve[];
  width: number;
  height: number;
}

/** Lines of text in a face. */
export const linesIn = (face: Face, text: string): LaidLine[] => text.split("\n").map((line) => face.lay(line.trim()));

/** How long a line is for a height of capitals, mm. */
export const lengthOf = (line: LaidLine, face: Face, height: number, spread: number): number =>
  (height / face.capital) * line.width + spread * Math.max(0, line.letters.length - 1);

/**
 * Lettering as it stands. Straight lines are placed by the box from the lowest baseline to the top of the first line's
 * capitals, so that words with and without long letters stand alike; bent ones by all that is seen of them.
 * @throws Problem `bad-circle` where a line does not fit on its circle
 */
export function laidOut(lines: readonly LaidLine[], face: Face, s: Setting): Layout {
  const em = s.height / face.capital;
  const lengths = lines.map((line) => lengthOf(line, face, s.height, s.spread));
  const widest = Math.max(...lengths);
  const curves: Curve[] = [];
  lines.forEach((line, k) => {
    const shift = { left: 0, centre: (widest - lengths[k]) / 2, right: widest - lengths[k] }[s.align];
    const base = (lines.length - 1 - k) * s.pitch;
    const radius = s.along === "line" ? 0 : radiusOf(k, lengths[k], s);
    line.letters.forEach(({ curves: own, x, y, width }, i) => {
      const left = shift + em * x + s.spread * i;
      if (s.along === "line") return void curves.push(...placed(own, em, left, base + em * y));
      // Each letter stands upright on the circle at its own middle.
      const middle = left + (em * width) / 2 - widest / 2;
      const turn = (s.along === "over" ? -middle : middle) / radius;
      const upright = placed(own, em, (-em * width) / 2, em * y + (s.along === "over" ? radius : -radius));
      curves.push(...placed(upright, 1, 0, 0, turn));
    });
  });
  if (s.along === "line") return { curves, width: widest, height: (lines.length - 1) * s.pitch + s.height };
  return toOrigin(curves);
}

/** Radius of line k's baseline: over a circle the first line is outermost, under it the last. */
function radiusOf(k: number, length: number, s: Setting): number {
  const radius = s.radius + (s.along === "over" ? -k : k) * s.pitch;
  if (length > 2 * Math.PI * radius)
    throw new Problem(
      "bad-circle",
      `Line ${k + 1} is ${formatLength(length)} mm long, and its circle only ` +
        `${formatLength(Math.max(0, 2 * Math.PI * radius))} mm round. Make the circle larger or the letters smaller.`,
    );
  return radius;
}

/** Moved so that the box round all their points begins at 0, 0. */
function toOrigin(curves: Curve[]): Layout {
  const points = curves.flatMap((c) => [c.x, c.y, ...c.segments.flatMap(({ n }) => [n[4], n[5]])]);
  if (points.length === 0) return { curves, width: 0, height: 0 };
  const { minX, minY, maxX, maxY } = boundsOf(Float64Array.from(points));
  return { curves: placed(curves, 1, -minX, -minY), width: maxX - minX, height: maxY - minY };
}
