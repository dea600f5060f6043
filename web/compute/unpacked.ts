import type { Built, Packed } from "./messages.ts";
import type { Receiver } from "./parcels.ts";
import { shownOf } from "./shown.ts";

/** A build as it arrives on the page, with what was there already. */
export function unpacked(p: Packed, receiver: Receiver): Built {
  const makings: Built["makings"] = {};
  for (const [id, product] of Object.entries(p.makings)) makings[id] = receiver.take(product);
  const cuts = p.cuts.map(({ paths, ...cut }) => ({ ...cut, ...receiver.take(paths) }));
  const surface = receiver.take(p.surface);
  receiver.taken();
  return { ...p, makings, cuts, surface, shown: shownOf(makings, p.job, "") };
}
