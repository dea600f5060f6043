import { cutAlong, type Loop } from "../../toolpath/loops.ts";
import type { ToolpathWriter } from "../../toolpath/toolpath.ts";
import { Bending } from "../contour/gentle.ts";
import type { Lead } from "../contour/leads.ts";

/**
 * A path that turns by more than this, radians, within this many mm is at a corner; the torch slows for it before and
 * after.
 */
const CORNER = 0.6;
const CORNER_WINDOW = 1;
const CORNER_REACH = 3;

/** How the torch is led. */
export interface TorchSettings {
  cutHeight: number;
  pierceHeight: number;
  pierceDelay: number;
  overcut: number;
  slowCorners: number;
}

/** One contour: pierce, lead in, once round with the overcut, torch off. */
export function torchAlong(
  w: ToolpathWriter,
  loop: Loop,
  lead: Lead | null,
  slow: number,
  s: TorchSettings,
  stray: number,
): void {
  const height = s.cutHeight;
  w.share = slow;
  w.above(lead?.x0 ?? loop.x[0], lead?.y0 ?? loop.y[0], s.pierceHeight);
  w.torch(true, s.pierceDelay);
  w.plunge(height);
  if (lead?.centre) w.arc(lead.ccw, lead.centre.x, lead.centre.y, loop.x[0], loop.y[0], height);
  else w.to(loop.x[0], loop.y[0], height);
  const path = withOvercut(loop, s.overcut);
  const corner = nearCorners(path, loop);
  for (let i = 0; i + 1 < path.x.length;) {
    let j = i + 1;
    while (j + 1 < path.x.length && corner[j] === corner[i]) j++;
    w.share = slow * (corner[i] ? s.slowCorners : 1);
    cutAlong(w, path.x, path.y, i, j, height, stray);
    i = j;
  }
  w.share = 1;
  w.torch(false, 0);
  w.lift();
}

/** Once round and `more` mm on. */
function withOvercut(l: Loop, more: number): Loop {
  const x = [...l.x];
  const y = [...l.y];
  const s = [...l.s];
  const total = l.s[l.s.length - 1];
  for (let i = 1; i < l.x.length && more > 0; i++) {
    const from = l.s[i - 1];
    if (from >= more) break;
    const f = Math.min(1, (more - from) / (l.s[i] - from || 1));
    x.push(l.x[i - 1] + f * (l.x[i] - l.x[i - 1]));
    y.push(l.y[i - 1] + f * (l.y[i] - l.y[i - 1]));
    s.push(total + Math.min(more, l.s[i]));
  }
  return { x: Float64Array.from(x), y: Float64Array.from(y), s: Float64Array.from(s) };
}

/** For each piece of the path (named by its first point) whether it lies within reach of a sharp corner. */
function nearCorners(path: Loop, loop: Loop): Uint8Array {
  const n = loop.x.length - 1;
  const total = loop.s[n];
  const bending = new Bending(loop);
  const corners: number[] = [];
  for (let i = 0; i < n; i++) if (bending.near(loop.s[i], CORNER_WINDOW) > CORNER) corners.push(loop.s[i]);
  return Uint8Array.from(path.s, (s, i) => {
    const next = path.s[Math.min(path.s.length - 1, i + 1)];
    return corners.some((c) => [c - total, c, c + total].some((q) => next > q - CORNER_REACH && s < q + CORNER_REACH))
      ? 1
      : 0;
  });
}
