/** Steps to the right and upward for each arrow key. */
const ARROWS: Record<string, readonly [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};

/** How far a key moves something: to the right and upward, in steps of this length; null where it is no arrow. */
export function arrowMove(key: string, step: number): { dx: number; dy: number } | null {
  const way = ARROWS[key];
  return way ? { dx: way[0] * step, dy: way[1] * step } : null;
}
