import { maskOf } from "../geometry/mask.ts";
import type { Rings } from "../geometry/rings.ts";
import type { Surface } from "./surface.ts";

/**
 * The surface without what falls out: pieces of waste that a cut through the stock has separated from everything, and
 * that do not reach the stock's edge. Only for looking at; the proof itself is left as it was swept.
 * @param waste regions that cuts through the stock may open, each with what is inside it free to fall
 */
export function withoutFallen(s: Surface, waste: readonly Rings[]): Surface {
  const { width: W, height: H, z, thickness } = s;
  const low = -thickness + 1e-6;
  if (waste.length === 0 || !z.some((v) => v <= low)) return s;
  const inWaste = new Uint8Array(W * H);
  for (const r of waste) {
    const m = maskOf(r, W, H, s.cell);
    for (let k = 0; k < m.length; k++) inWaste[k] |= m[k];
  }
  const seen = new Uint8Array(W * H);
  const stack = new Int32Array(W * H);
  const out = z.slice();
  for (let start = 0; start < z.length; start++) {
    if (seen[start] || z[start] <= low) continue;
    // One connected piece of what still stands.
    let top = 0;
    let end = 0;
    let wasted = 0;
    let edge = false;
    stack[end++] = start;
    seen[start] = 1;
    while (top < end) {
      const k = stack[top++];
      const x = k % W;
      const y = (k - x) / W;
      if (inWaste[k]) wasted++;
      if (x === 0 || y === 0 || x === W - 1 || y === H - 1) edge = true;
      for (let way = 0; way < 4; way++) {
        if (way === 0 ? x === 0 : way === 1 ? x === W - 1 : way === 2 ? y === 0 : y === H - 1) continue;
        const n = way === 0 ? k - 1 : way === 1 ? k + 1 : way === 2 ? k - W : k + W;
        if (seen[n] || z[n] <= low) continue;
        seen[n] = 1;
        stack[end++] = n;
      }
    }
    if (edge || wasted < end / 2) continue;
    for (let i = 0; i < end; i++) out[stack[i]] = -thickness - 0.1;
  }
  return { ...s, z: out };
}
