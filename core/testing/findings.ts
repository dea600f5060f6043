import type { Finding } from "../inspect/finding.ts";
import type { BoardJob } from "../job/document.ts";

/** A job with something wrong, and what inspection is to say of it. */
export interface FindingCase {
  what: string;
  outcome: string;
  edit(j: BoardJob): void;
  code: string;
  severity: Finding["severity"];
  says: RegExp;
}
