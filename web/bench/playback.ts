import type { Desk } from "../compute/desk.ts";
import type { DrawnCut } from "../compute/messages.ts";
import type { Bench } from "./store.ts";

/** Seconds of all cuts that are on, tool changes left out: what the playhead runs over. */
export function cuttingSeconds(cuts: readonly DrawnCut[]): number {
  let total = 0;
  for (const c of cuts) if (c.on) total += c.seconds;
  return total;
}

/** Where the cutter is after so many seconds of cutting: the cut, the move and the place on it. */
export function positionAt(
  cuts: readonly DrawnCut[],
  seconds: number,
): { cut: number; move: number; x: number; y: number; z: number } | null {
  let left = seconds;
  for (let k = 0; k < cuts.length; k++) {
    const c = cuts[k];
    if (!c.on || c.toolpath.kind.length === 0) continue;
    if (left > c.seconds && cuts.slice(k + 1).some((d) => d.on && d.toolpath.kind.length > 0)) {
      left -= c.seconds;
      continue;
    }
    const t = c.toolpath;
    const n = t.kind.length;
    for (let i = 0; i < n; i++) {
      const s = c.moveSeconds[i];
      if (left <= s || i === n - 1) {
        const f = s > 0 ? Math.min(1, left / s) : 1;
        const p = Math.max(0, i - 1);
        return {
          cut: k,
          move: i + (f >= 1 ? 1 : 0),
          x: t.x[p] + f * (t.x[i] - t.x[p]),
          y: t.y[p] + f * (t.y[i] - t.y[p]),
          z: t.z[p] + f * (t.z[i] - t.z[p]),
        };
      }
      left -= s;
    }
  }
  return null;
}

/** Moves the playhead to a moment of the cutting, s, and asks for the surface then; null or past the end: all done. */
export function seek({ store }: Pick<Bench, "store">, desk: Desk, seconds: number | null): void {
  const { built } = store.getState();
  if (!built) return;
  if (seconds === null || seconds >= cuttingSeconds(built.cuts))
    return store.setState({ playhead: null, scrubbed: null, playing: false });
  const playhead = Math.max(0, seconds);
  store.setState({ playhead });
  const at = positionAt(built.cuts, playhead);
  if (at) desk.scrub(at.cut, at.move);
}

/** Where a cut's card stands in the strip, px; null where it has none. */
const cardOf = (track: HTMLElement, id: string) => track.querySelector<HTMLElement>(`[data-cut="${id}"]`);

/** Where a moment stands over the cards, px: card by card, so that narrow cuts keep their share. */
export function offsetOf(track: HTMLElement, cuts: readonly DrawnCut[], seconds: number): number {
  let left = seconds;
  for (const c of cuts) {
    const card = c.on ? cardOf(track, c.id) : null;
    if (!card) continue;
    if (left <= c.seconds) return card.offsetLeft + (c.seconds > 0 ? left / c.seconds : 1) * card.offsetWidth;
    left -= c.seconds;
  }
  return track.scrollWidth;
}

/** The moment at a place over the cards, s. */
export function secondsAt(track: HTMLElement, cuts: readonly DrawnCut[], x: number): number {
  let sum = 0;
  for (const c of cuts) {
    const card = c.on ? cardOf(track, c.id) : null;
    if (!card) continue;
    if (x < card.offsetLeft + card.offsetWidth)
      return sum + Math.max(0, (x - card.offsetLeft) / card.offsetWidth) * c.seconds;
    sum += c.seconds;
  }
  return sum;
}
