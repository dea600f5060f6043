import type { BuildResult } from "../job/build.ts";

/** A setting that cures it: id of the making or cut whose slip has it, its field, and the value that does, if known. */
interface SettingCure {
  id: string;
  field: string;
  value?: number | boolean | string;
  label?: string;
  helper?: undefined;
  chooses?: undefined;
}

/** A kind of cut that cures it when it helps the cut with this id. */
interface HelperCure {
  id: string;
  helper: string;
  label: string;
  field?: undefined;
  value?: undefined;
  chooses?: undefined;
}

/** Other cutters of the rack may cure it, chosen for the cut with this id. */
interface ChoiceCure {
  id: string;
  chooses: true;
  label: string;
  field?: undefined;
  value?: undefined;
  helper?: undefined;
}

/** What inspection found: a sentence that says what is wrong and what to do, and where. */
export interface Finding {
  code: string;
  /** stop: programs are not written; warning: the piece will suffer; note: good to know */
  severity: "stop" | "warning" | "note";
  message: string;
  /** id of the cut concerned */
  cut?: string;
  cure?: SettingCure | HelperCure | ChoiceCure;
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
