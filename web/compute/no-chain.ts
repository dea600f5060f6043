import type { DrawnChain } from "./messages.ts";

/** No chain at all: a job whose outline could not be traced. */
export const NO_CHAIN: DrawnChain = {
  place: null,
  measured: null,
  outline: null,
  bins: null,
  tone: null,
  framed: null,
  pixels: null,
  colours: null,
};
