import { parseErase } from "./erase.ts";
import { cropBox, type FrameSettings, squaredSize, turnedSize } from "./frame.ts";

const round = (v: number): number => Math.round(v * 10) / 10;

/**
 * A frame turned otherwise, its crop and erasures where they were on the picture: both are kept in pixels of the turned
 * picture, so they move with it. A crop keeps its size about the same middle.
 * @param width @param height of the picture before it is framed, px
 * @throws Problem as `framed` does
 */
export function turnedFrame(width: number, height: number, s: FrameSettings, turn: number): FrameSettings {
  const squared = squaredSize(s.corners, width, height);
  const from = turnedSize(squared.width, squared.height, s.turn);
  const to = turnedSize(squared.width, squared.height, turn);
  // Turned by so much more, counter-clockwise as seen, with y down.
  const a = ((turn - s.turn) * Math.PI) / 180;
  const [c, d] = [Math.cos(a), Math.sin(a)];
  const moved = (n: readonly number[]): number[] =>
    n.flatMap((_, i) => {
      if (i % 2) return [];
      const x = n[i] - from.width / 2;
      const y = n[i + 1] - from.height / 2;
      return [round(to.width / 2 + c * x + d * y), round(to.height / 2 - d * x + c * y)];
    });
  const erase = parseErase(s.erase).map(({ kind, n }) => {
    if (kind === "brush") return `brush ${n[0]} ${moved(n.slice(1)).join(" ")}`;
    if (kind !== "rect") return `${kind} ${moved(n).join(" ")}`;
    const [x, y, w, h] = n;
    return `lasso ${moved([x, y, x + w, y, x + w, y + h, x, y + h]).join(" ")}`;
  });
  let crop = "";
  if (s.crop.trim() !== "") {
    const b = cropBox(s.crop, from.width, from.height);
    const [x, y] = moved([b.x + b.width / 2, b.y + b.height / 2]);
    const w = Math.min(b.width, to.width);
    const h = Math.min(b.height, to.height);
    const within = (v: number, most: number) => Math.round(Math.max(0, Math.min(most, v)));
    crop = [within(x - w / 2, to.width - w), within(y - h / 2, to.height - h), w, h].join(",");
  }
  return { corners: s.corners, turn, erase: erase.join("; "), crop };
}
