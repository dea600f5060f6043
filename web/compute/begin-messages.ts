import type { Judgement } from "@oaken/core/picture/fitness";
import type { Cutter } from "@oaken/core/cutters/profile";
import type { BoardJob } from "@oaken/core/job/document";

export interface BeginAsk {
  seq: number;
  sha: string;
  /** one job for each outcome, in their order */
  jobs: BoardJob[];
  /** cutters to choose from */
  rack: readonly Cutter[];
  /** what somebody waits for already: it comes before the rest */
  first: Picked | null;
}

/** What the worker of Begin does for the page. */
export interface BeginWork {
  /** @param hear hears what is known so far, again as each outcome is done; less comes of one that is not the newest */
  begin(ask: BeginAsk, hear: (begun: Begun) => void): Promise<void>;
  /** The same while the request with this number is under way. */
  first(seq: number, picked: Picked): void;
}

/** An outcome as a person picks it. */
export interface Picked {
  id: string;
  /** whether the picture is prepared for it */
  isPrepared: boolean;
}

/** One way of cutting an outcome: with one cutter, or with others before it. */
export interface BegunPlan {
  label: string;
  /** of these cuts, s; estimated */
  seconds: number;
  cuts: BoardJob["cuts"];
  /** whether it is what the picture of the outcome shows */
  isTaken: boolean;
}

/** What one outcome comes to with this picture. */
export interface BegunOutcome {
  id: string;
  /** what the tone step does for it that the plain one goes without, mm */
  prepared: { even?: number; smooth?: number } | null;
  /** whether its cutters were tried against each other for this picture, where there are any to choose from */
  isChosen: boolean;
  /** 0 before its cutters are chosen */
  seconds: number;
  /** its cuts, with the usual cutters until others are chosen */
  cuts: BoardJob["cuts"];
  /** with one cutter and with the best set of more, where both can be; none where there is nothing to choose */
  plans: BegunPlan[];
  problem: string | null;
  worst: string | null;
  suits: { good: boolean; why: string } | null;
  picture: { width: number; height: number; data: Uint8ClampedArray } | null;
}

/** What is known of a picture so far; sent again as each outcome is done. */
export interface Begun {
  seq: number;
  done: boolean;
  problem: string | null;
  judgement: Judgement[];
  /** the art on the stock, mm */
  size: { width: number; height: number } | null;
  /** all outcomes by their ids, in the order in which they are made: first those that the picture promises to suit */
  order: readonly string[];
  outcomes: BegunOutcome[];
}
