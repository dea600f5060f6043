/**
 * A failure a person can act on. Every boundary of the core throws this and nothing else on bad input;
 * `sentence` says what is wrong, where, and what to do.
 */
export class Problem extends Error {
  readonly code: string;
  constructor(code: string, sentence: string) {
    super(sentence);
    this.name = "Problem";
    this.code = code;
  }
}

/** Thrown out of long work when its caller no longer wants the answer. */
export class Cancelled extends Error {
  constructor() {
    super("cancelled");
    this.name = "Cancelled";
  }
}

/** How far long work has come; throws {@link Cancelled} from inside when nobody waits for it any more. */
export type Progress = (share: number) => void;

/** A {@link Progress} for callers that do not care. */
export const noProgress: Progress = () => {};
