import type { CutResult } from "../../job/plan.ts";
import type { Clamp } from "../../job/document.ts";
import { profileOf } from "../../cutters/profile.ts";
import { eachPiece } from "../../toolpath/pieces.ts";
import { formatLength } from "../../units.ts";
import type { Finding, Rule } from "../finding.ts";
import { hypot } from "../../hypot.ts";

/** Cuts whose cutter comes against a clamp or a screw: the first such place of each. */
export const clamps: Rule = ({ build }) => {
  const standing = build.job.stock.clamps ?? [];
  return build.cuts
    .filter((c) => c.cut.on)
    .flatMap((c) =>
      standing.flatMap((clamp, i): Finding[] => {
        const at = hit(c, clamp);
        if (!at) return [];
        const what = clamp.round ? "screw" : "clamp";
        const message =
          `${c.cut.name} would run into ${what} ${i + 1}, ${formatLength(clamp.tall)} mm tall, at X ` +
          `${formatLength(clamp.x)} Y ${formatLength(clamp.y)}: the cutter or the machine breaks. Move the ${what} ` +
          "or the art.";
        return [{ code: "into-clamp", severity: "stop", message, cut: c.id, at }];
      }),
    );
};

/** Where a cut's cutter first touches a clamp, mm; null where it passes. */
function hit({ toolpath, cut }: CutResult, clamp: Clamp): { x: number; y: number } | null {
  const { radius } = profileOf(cut.cutter);
  let found: { x: number; y: number } | null = null;
  eachPiece(toolpath, (x0, y0, z0, x1, y1, z1) => {
    if (found || Math.min(z0, z1) >= clamp.tall) return;
    if (distanceTo(clamp, x0, y0, x1, y1) < radius) found = { x: x1, y: y1 };
  });
  return found;
}

/** How far a straight move passes from a clamp, mm; 0 where it crosses it. */
function distanceTo({ x, y, width, height, round }: Clamp, x0: number, y0: number, x1: number, y1: number): number {
  const [cx, cy] = [x + width / 2, y + height / 2];
  if (round) return Math.max(0, toPoint(cx, cy, x0, y0, x1, y1) - Math.min(width, height) / 2);
  if (crosses(x, y, x + width, y + height, x0, y0, x1, y1)) return 0;
  const corners = [
    [x, y],
    [x + width, y],
    [x, y + height],
    [x + width, y + height],
  ];
  const ends = [
    [x0, y0],
    [x1, y1],
  ];
  return Math.min(
    ...corners.map(([px, py]) => toPoint(px, py, x0, y0, x1, y1)),
    ...ends.map(([px, py]) => hypot(px - clampTo(px, x, x + width), py - clampTo(py, y, y + height))),
  );
}

const clampTo = (v: number, least: number, most: number): number => Math.max(least, Math.min(most, v));

/** Distance of a point from a segment. */
function toPoint(px: number, py: number, x0: number, y0: number, x1: number, y1: number): number {
  const [dx, dy] = [x1 - x0, y1 - y0];
  const length2 = dx * dx + dy * dy;
  const t = length2 > 0 ? clampTo(((px - x0) * dx + (py - y0) * dy) / length2, 0, 1) : 0;
  return hypot(px - x0 - t * dx, py - y0 - t * dy);
}

/** Whether a segment passes through a rectangle (Liang and Barsky's clipping). */
function crosses(
  ...[left, low, right, high, x0, y0, x1, y1]: [number, number, number, number, number, number, number, number]
): boolean {
  let [from, to] = [0, 1];
  for (const [p, q] of [
    [x0 - x1, x0 - left],
    [x1 - x0, right - x0],
    [y0 - y1, y0 - low],
    [y1 - y0, high - y0],
  ]) {
    if (p === 0) {
      if (q < 0) return false;
    } else if (p < 0) from = Math.max(from, q / p);
    else to = Math.min(to, q / p);
  }
  return from <= to;
}
