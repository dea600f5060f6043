type Attributes = Record<string, string>;

/** A number of an attribute; `fallback` where it is missing or none. */
const number = (a: Attributes, name: string, fallback = 0): number => {
  const v = Number.parseFloat(a[name] ?? "");
  return Number.isFinite(v) ? v : fallback;
};

/** The path data of SVG's basic shapes as the standard defines them (SVG 2, chapter 10); null for other elements. */
const SHAPES: Record<string, (a: Attributes) => string | null> = {
  path: (a) => a.d ?? null,
  rect: rectangle,
  circle: (a) => ellipse(number(a, "cx"), number(a, "cy"), number(a, "r"), number(a, "r")),
  ellipse: (a) => ellipse(number(a, "cx"), number(a, "cy"), number(a, "rx"), number(a, "ry")),
  polygon: (a) => (a.points ? `M${a.points}z` : null),
  polyline: (a) => (a.points ? `M${a.points}` : null),
  line: (a) => `M${number(a, "x1")} ${number(a, "y1")}L${number(a, "x2")} ${number(a, "y2")}`,
};

export const pathOf = (tag: string, a: Attributes): string | null =>
  Object.hasOwn(SHAPES, tag) ? SHAPES[tag](a) : null;

function ellipse(cx: number, cy: number, rx: number, ry: number): string | null {
  if (!(rx > 0 && ry > 0)) return null;
  return `M${cx + rx} ${cy}A${rx} ${ry} 0 0 1 ${cx - rx} ${cy}A${rx} ${ry} 0 0 1 ${cx + rx} ${cy}z`;
}

function rectangle(a: Attributes): string | null {
  const [x, y, w, h] = [number(a, "x"), number(a, "y"), number(a, "width"), number(a, "height")];
  if (!(w > 0 && h > 0)) return null;
  // One radius given stands for both; none is larger than half the side.
  const rx = Math.min(w / 2, number(a, "rx", number(a, "ry")));
  const ry = Math.min(h / 2, number(a, "ry", number(a, "rx")));
  if (!(rx > 0 && ry > 0)) return `M${x} ${y}h${w}v${h}h${-w}z`;
  const corner = (dx: number, dy: number) => `a${rx} ${ry} 0 0 1 ${dx} ${dy}`;
  return (
    `M${x + rx} ${y}h${w - 2 * rx}${corner(rx, ry)}v${h - 2 * ry}${corner(-rx, ry)}` +
    `h${2 * rx - w}${corner(-rx, -ry)}v${2 * ry - h}${corner(rx, -ry)}z`
  );
}
