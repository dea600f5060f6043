/**
 * Means over a square window of 2·radius + 1 pixels, cut off at the picture's border, by running sums: the cost does not
 * depend on the radius.
 * @param at value of pixel i
 * @returns one float a pixel
 */
export function boxMeans(width: number, height: number, radius: number, at: (i: number) => number): Float32Array {
  const out = new Float32Array(width * height);
  const column = new Float64Array(width);
  const value = (x: number, y: number) => at(y * width + x);
  for (let y = 0; y < Math.min(height, radius); y++) for (let x = 0; x < width; x++) column[x] += value(x, y);
  for (let y = 0; y < height; y++) {
    const below = y + radius;
    const above = y - radius - 1;
    if (below < height) for (let x = 0; x < width; x++) column[x] += value(x, below);
    if (above >= 0) for (let x = 0; x < width; x++) column[x] -= value(x, above);
    const rows = Math.min(height - 1, below) - Math.max(0, above + 1) + 1;
    let sum = 0;
    for (let x = 0; x < Math.min(width, radius); x++) sum += column[x];
    for (let x = 0; x < width; x++) {
      const right = x + radius;
      const left = x - radius - 1;
      if (right < width) sum += column[right];
      if (left >= 0) sum -= column[left];
      out[y * width + x] = sum / (rows * (Math.min(width - 1, right) - Math.max(0, left + 1) + 1));
    }
  }
  return out;
}
