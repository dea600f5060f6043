import { expose } from "comlink";
import { Kept } from "@oaken/core/kept";
import { Cancelled, Problem } from "@oaken/core/problem";
import type { BeginAsk, BeginWork, Begun, Picked } from "./begin-messages.ts";
import { Beginning } from "./begin-outcomes.ts";
import { pixels } from "./pixels.ts";
import { ready } from "./ready.ts";

const kept = new Kept();
let newest = 0;
/** The outcome of the newest request that somebody waits for. */
let first: Picked | null = null;

async function begin(ask: BeginAsk, hear: (begun: Begun) => void): Promise<void> {
  let said: Begun = { seq: ask.seq, done: false, problem: null, judgement: [], size: null, order: [], outcomes: [] };
  const send = () => hear(said);
  try {
    const beginning = new Beginning(ask, await pixels(ask.sha, send), kept);
    ({ said } = beginning);
    send();
    for (let isMore = true; isMore; send()) {
      // A turn of the event loop, so that a newer request is seen.
      await new Promise((r) => setTimeout(r));
      if (ask.seq !== newest) return;
      isMore = beginning.step(first);
    }
  } catch (e) {
    if (e instanceof Cancelled) return;
    said.problem =
      e instanceof Problem ? e.message : "Something went wrong while looking at this picture. Try another one.";
    if (!(e instanceof Problem)) console.error(e);
  }
  said.done = true;
  send();
}

let queue = ready();
const work: BeginWork = {
  begin(ask, hear) {
    newest = ask.seq;
    ({ first } = ask);
    queue = queue.then(() => begin(ask, hear));
    return queue;
  },
  first(seq, picked) {
    if (seq === newest) first = picked;
  },
};
expose(work);
