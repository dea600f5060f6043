import type { Left } from "../cuts/kind.ts";

/** Whether cutters leave so much more than others that somebody might mind. */
export const isMore = (left: Left, than: Pick<Left, "area" | "missing">): boolean =>
  left.missing > than.missing || left.area > than.area + left.spare;

/** The least that can be had of what several sets leave: as few places as any, and of those the least area. */
export function leastOf(lefts: readonly Left[]): Pick<Left, "area" | "missing"> {
  const missing = Math.min(...lefts.map((l) => l.missing));
  return { missing, area: Math.min(...lefts.filter((l) => l.missing === missing).map((l) => l.area)) };
}

/** What cutters leave beyond what others do, in words. */
export function leavesMore(left: Left, than: Left): string {
  const missing = left.missing - than.missing;
  if (missing > 0) return `${missing} ${missing === 1 ? "place" : "places"} uncut`;
  return `${Math.max(1, Math.round(left.area - than.area))} mm² more`;
}
