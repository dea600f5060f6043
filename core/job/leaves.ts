import type { Left } from "../cuts/kind.ts";

/** What cutters leave beyond what others do, in words. */
export function leavesMore(left: Left, than: Left): string {
  const missing = left.missing - than.missing;
  if (missing > 0) return `${missing} ${missing === 1 ? "place" : "places"} uncut`;
  return `${Math.max(1, Math.round(left.area - than.area))} mm² more`;
}
