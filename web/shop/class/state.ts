import type { JobCard } from "../../server/card.ts";

/** How far a person's piece is, in a word. */
export const STATES = {
  "no picture": "text-faint",
  "not looked at": "text-soft",
  "to mend": "text-danger",
  ready: "text-spruce",
  written: "text-spruce",
} as const;
export type State = keyof typeof STATES;

export function stateOf(c: JobCard): State {
  if (!c.hasPicture) return "no picture";
  if (c.stops > 0) return "to mend";
  if (c.written === c.revision) return "written";
  return c.seconds > 0 ? "ready" : "not looked at";
}
