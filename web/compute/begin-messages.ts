import type { Judgement } from "@oaken/core/picture/fitness";
import type { JobDocument } from "@oaken/core/job/document";

export interface BeginAsk {
  seq: number;
  sha: string;
  /** one job for each outcome, in their order */
  jobs: JobDocument[];
  /** picture's width, mm */
  width: number;
}

/** What is known of a picture so far; sent again as each outcome is done. */
export interface Begun {
  seq: number;
  done: boolean;
  problem: string | null;
  judgement: Judgement[];
  outcomes: { id: string; seconds: number; problem: string | null; worst: string | null; suits: { good: boolean; why: string } | null; picture: { width: number; height: number; data: Uint8ClampedArray } | null }[];
}
