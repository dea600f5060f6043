import type { StartRules } from "@oaken/core/job/document";

/** A job as the wall shows it. */
export interface ClassCard {
  id: string;
  name: string;
  revision: number;
  seconds: number;
  written: number | null;
  person: string | null;
  class: string | null;
  hasPicture: boolean;
  stops: number;
}

export interface ClassWall {
  start: ClassCard;
  rules: StartRules;
  people: ClassCard[];
}

/** How far a person's piece is, in a word. */
export const STATES = {
  "no picture": "text-faint",
  "not looked at": "text-soft",
  "to mend": "text-danger",
  ready: "text-spruce",
  written: "text-spruce",
} as const;
export type State = keyof typeof STATES;

export function stateOf(c: ClassCard): State {
  if (!c.hasPicture) return "no picture";
  if (c.stops > 0) return "to mend";
  if (c.written === c.revision) return "written";
  return c.seconds > 0 ? "ready" : "not looked at";
}
