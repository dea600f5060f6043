import { ARC, arcSweep, contourCount, eachSegment, LINE, type Shape } from "../geometry/shape.ts";
import type { Lines } from "../outline/centre.ts";
import { formatLength } from "../units.ts";
import { hypot } from "../hypot.ts";

const n = (v: number): string => formatLength(v, "mm", 4);

/** The path data of a shape with y pointing down from `top`, x from `left`; mm. */
export function pathData(s: Shape, left: number, top: number): string {
  const parts: string[] = [];
  const X = (x: number) => n(x - left);
  const Y = (y: number) => n(top - y);
  for (let k = 0; k < contourCount(s); k++) {
    parts.push(`M${X(s.origin[2 * k])} ${Y(s.origin[2 * k + 1])}`);
    eachSegment(s, k, (kind, x0, y0, at) => {
      const p = s.nodes;
      const end = `${X(p[at + 4])} ${Y(p[at + 5])}`;
      if (kind === LINE) parts.push(`L${end}`);
      else if (kind === ARC) {
        const sweep = arcSweep(x0, y0, p[at], p[at + 1], p[at + 2], p[at + 4], p[at + 5]);
        const r = n(hypot(x0 - p[at], y0 - p[at + 1]));
        parts.push(`A${r} ${r} 0 ${Math.abs(sweep) > Math.PI ? 1 : 0} ${sweep > 0 ? 0 : 1} ${end}`);
      } else parts.push(`C${X(p[at])} ${Y(p[at + 1])} ${X(p[at + 2])} ${Y(p[at + 3])} ${end}`);
    });
    parts.push("Z");
  }
  return parts.join("");
}

/**
 * An SVG drawing of the ink, filled, its page the artwork's bounds in mm; centre lines as strokes as wide as they were.
 */
export function writeSvg(
  s: Shape,
  art: { x: number; y: number; width: number; height: number },
  lines: Lines | null = null,
): string {
  const w = n(art.width);
  const h = n(art.height);
  const ink = lines
    ? ""
    : `<path id="ink" fill="#000" fill-rule="evenodd" d="${pathData(s, art.x, art.y + art.height)}"/>\n`;
  return (
    `<?xml version="1.0" encoding="UTF-8"?>\n<svg xmlns="http://www.w3.org/2000/svg" width="${w}mm" ` +
    `height="${h}mm" viewBox="0 0 ${w} ${h}">` +
    `\n${ink}${lines ? strokes(lines, art.x, art.y + art.height) : ""}</svg>\n`
  );
}

function strokes(l: Lines, left: number, top: number): string {
  const out: string[] = [];
  for (let k = 0; k + 1 < l.starts.length; k++) {
    const points: string[] = [];
    let width = 0;
    for (let i = l.starts[k]; i < l.starts[k + 1]; i++) {
      points.push(`${n(l.xy[2 * i] - left)} ${n(top - l.xy[2 * i + 1])}`);
      width += l.width[i] / (l.starts[k + 1] - l.starts[k]);
    }
    const d = `M${(l.closed[k] ? points.slice(0, -1) : points).join("L")}${l.closed[k] ? "Z" : ""}`;
    out.push(
      `<path fill="none" stroke="#000" stroke-linecap="round" stroke-linejoin="round" ` +
        `stroke-width="${n(width)}" d="${d}"/>\n`,
    );
  }
  return `<g id="centre">\n${out.join("")}</g>\n`;
}
