import { type StockSettings, zeroPoint } from "@oaken/core/job/document";

/** The zero mark's arms, at least, mm; and as a share of the stock's shorter side. */
const LEAST_ARM = 6;
const ARM = 0.07;
/** Beyond this share of the stock an arm points back over it. */
const FAR = 0.75;
/** Half the cross on the zero itself, mm; and how far all of it lies above. */
const CROSS = 1;
const LIFT = 0.2;

/** The work zero as two arms along X and Y and a small cross: from and to, x, y, z of each by turns. */
export function zeroSegments(stock: StockSettings): Float32Array {
  const { x, y, z } = zeroPoint(stock);
  const arm = Math.max(LEAST_ARM, ARM * Math.min(stock.width, stock.height));
  const acrossX = x > stock.width * FAR ? -arm : arm;
  const alongY = y > stock.height * FAR ? -arm : arm;
  const top = z + LIFT;
  const arms = [x, y, top, x + acrossX, y, top, x, y, top, x, y + alongY, top];
  return Float32Array.from([...arms, ...cross(x, y, top, CROSS)]);
}

/** Crosses at places, mm: x, y by turns; as segments in the same way. */
export function crossSegments(at: ArrayLike<number>, size: number): Float32Array {
  const out: number[] = [];
  for (let i = 0; i + 1 < at.length; i += 2) out.push(...cross(at[i], at[i + 1], ABOVE, size));
  return Float32Array.from(out);
}
/** Crosses lie this far above the stock, mm. */
const ABOVE = 0.1;

const cross = (x: number, y: number, z: number, r: number): number[] => [
  ...[x - r, y - r, z, x + r, y + r, z],
  ...[x - r, y + r, z, x + r, y - r, z],
];
