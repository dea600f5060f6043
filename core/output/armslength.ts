import { encoded, lightOf, parseHex } from "../colour.ts";
import type { Material } from "../cutters/materials.ts";
import { bareBelow, type Painted } from "../proof/light.ts";
import type { Surface } from "../proof/surface.ts";
import { FINEST_SEEN } from "../units.ts";

/** Where a piece is looked at in the hand, mm. */
const ARMS_LENGTH = 600;
const FINEST = ARMS_LENGTH * Math.tan(FINEST_SEEN);
/** Pixels of the picture for each such detail. */
const PIXELS = 2;

/**
 * A painted piece as the eye sees it at arm's length: light of paint and bare surface averaged over what the eye
 * cannot tell apart, RGBA, row 0 at the far edge. Drawn from the swept surface: bare is what lies below the paint.
 */
export function atArmsLength(s: Surface, material: Material, { paint, coat }: Painted) {
  const top = ((paint && parseHex(paint)) || material.face).map((v) => lightOf(v / 255));
  const bare = material.cut.map((v) => lightOf(v / 255));
  const under = bareBelow({ paint, coat });
  const share = Float32Array.from(s.z, (z) => (z < under ? 1 : 0));
  const seen = blurred(share, s.width, s.height, FINEST / 2 / s.cell);
  const step = Math.max(1, Math.floor(FINEST / PIXELS / s.cell));
  const width = Math.max(1, Math.floor(s.width / step));
  const height = Math.max(1, Math.floor(s.height / step));
  const data = new Uint8ClampedArray(4 * width * height);
  for (let j = 0; j < height; j++)
    for (let i = 0; i < width; i++) {
      const part = seen[j * step * s.width + i * step];
      const at = 4 * ((height - 1 - j) * width + i);
      for (let c = 0; c < 3; c++) data[at + c] = 255 * encoded(top[c] + (bare[c] - top[c]) * part);
      data[at + 3] = 255;
    }
  return { width, height, channels: 4 as const, data };
}

/** So many means of a running window are as good as a bell curve. */
const PASSES = 3;

/** Means over a window, three times along rows and columns: near a bell curve of this spread, in cells. */
function blurred(v: Float32Array, width: number, height: number, spread: number): Float32Array {
  // A window of 2r + 1 cells has a variance of r(r + 1)/3; so many after one another add up.
  const r = Math.round((Math.sqrt(1 + (12 * spread * spread) / PASSES) - 1) / 2);
  let from = v;
  for (let pass = 0; pass < PASSES; pass++) {
    const across = means(from, r, width, 1, height, width);
    from = means(across, r, height, width, width, 1);
  }
  return from;
}

/** Running means along lines: `count` cells each `step` apart, in `lines` lines whose first cells lie `apart`. */
function means(v: Float32Array, r: number, count: number, step: number, lines: number, apart: number): Float32Array {
  const out = new Float32Array(v.length);
  for (let line = 0; line < lines; line++) {
    const first = line * apart;
    let sum = 0;
    let n = 0;
    for (let k = 0; k < Math.min(r, count); k++, n++) sum += v[first + k * step];
    for (let k = 0; k < count; k++) {
      if (k + r < count) {
        sum += v[first + (k + r) * step];
        n++;
      }
      if (k > r) {
        sum -= v[first + (k - r - 1) * step];
        n--;
      }
      out[first + k * step] = sum / n;
    }
  }
  return out;
}
