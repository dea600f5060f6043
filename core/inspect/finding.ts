import type { BuildResult } from "../job/build.ts";

/** What inspection found: a sentence that says what is wrong and what to do, and where. */
export interface Finding {
  code: string;
  /** stop: programs are not written; warning: the piece will suffer; note: good to know */
  severity: "stop" | "warning" | "note";
  message: string;
  /** id of the cut concerned */
  cut?: string;
  /** id of the making or cut whose slip can cure it, and the field there; or a kind of cut that would help it */
  cure?: { id: string; field?: string; value?: number | boolean | string; helper?: string; label?: string };
  /** place on the stock, mm */
  at?: { x: number; y: number };
}

/** What rules may look at. */
export interface Inspected {
  build: BuildResult;
  /** revision now and the newest one that programs were written from, when any were */
  revision?: number;
  written?: number;
}

/** A rule reads the finished build and says what it finds. Add one as a file in `rules/` and a line in `inspect.ts`. */
export type Rule = (i: Inspected) => Finding[];
