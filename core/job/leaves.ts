import type { Left } from "../cuts/kind.ts";

/** Whether cutters leave so much more than others that somebody might mind. */
export const isMore = (left: Left, than: Pick<Left, "area" | "missing">): boolean =>
  left.missing > than.missing || left.area > than.area + left.spare;

/** What cutters leave beyond what others do, in words. */
export function leavesMore(left: Left, than: Left): string {
  const missing = left.missing - than.missing;
  if (missing > 0) return `${missing} ${missing === 1 ? "place" : "places"} uncut`;
  return `${Math.max(1, Math.round(left.area - than.area))} mm² more`;
}
