export type Samples = Uint8Array | Uint16Array | Float32Array;

/**
 * Means over a square window of 2·radius + 1 pixels, cut off at the picture's border, by running sums: the cost does
 * not depend on the radius.
 * @param power 1 for the means of the samples, 2 for those of the squares of whole numbers
 * @param out receives one float a pixel; not the samples themselves
 */
export function boxMeans(
  width: number,
  height: number,
  radius: number,
  samples: Samples,
  power: 1 | 2 = 1,
  out: Float32Array = new Float32Array(width * height),
): Float32Array {
  const column = new Float64Array(width);
  for (let y = 0; y < Math.min(height, radius); y++) addRow(column, samples, y * width, power, 1);
  for (let y = 0; y < height; y++) {
    const below = y + radius;
    const above = y - radius - 1;
    if (below < height && above >= 0) exchangeRows(column, samples, below * width, above * width, power);
    else if (below < height) addRow(column, samples, below * width, power, 1);
    else if (above >= 0) addRow(column, samples, above * width, power, -1);
    rowMeans(column, radius, Math.min(height - 1, below) - Math.max(0, above + 1) + 1, out, y * width);
  }
  return out;
}

/** Adds a row of samples, or takes it away. */
function addRow(column: Float64Array, samples: Samples, from: number, power: 1 | 2, sign: 1 | -1): void {
  for (let x = 0; x < column.length; x++) column[x] += sign * samples[from + x] ** power;
}

/** Adds one row of samples and takes another away. */
function exchangeRows(column: Float64Array, samples: Samples, more: number, less: number, power: 1 | 2): void {
  // One loop for each kind of sample: a loop that meets several is compiled for none.
  if (samples instanceof Float32Array) exchangeFloats(column, samples, more, less);
  else if (samples instanceof Uint16Array) exchangeWide(column, samples, more, less, power);
  else exchangeBytes(column, samples, more, less, power);
}
function exchangeBytes(column: Float64Array, samples: Uint8Array, more: number, less: number, power: 1 | 2): void {
  if (power === 1) for (let x = 0; x < column.length; x++) column[x] += samples[more + x] - samples[less + x];
  else
    for (let x = 0; x < column.length; x++)
      column[x] += samples[more + x] * samples[more + x] - samples[less + x] * samples[less + x];
}
function exchangeWide(column: Float64Array, samples: Uint16Array, more: number, less: number, power: 1 | 2): void {
  if (power === 1) for (let x = 0; x < column.length; x++) column[x] += samples[more + x] - samples[less + x];
  else
    for (let x = 0; x < column.length; x++)
      column[x] += samples[more + x] * samples[more + x] - samples[less + x] * samples[less + x];
}
function exchangeFloats(column: Float64Array, samples: Float32Array, more: number, less: number): void {
  for (let x = 0; x < column.length; x++) column[x] += samples[more + x] - samples[less + x];
}

/** Means of a row from the sums of its columns, each over `rows` pixels. */
function rowMeans(column: Float64Array, radius: number, rows: number, out: Float32Array, at: number): void {
  const width = column.length;
  let sum = 0;
  for (let x = 0; x < Math.min(width, radius); x++) sum += column[x];
  const whole = 1 / (rows * (2 * radius + 1));
  for (let x = 0; x < width; x++) {
    const right = x + radius;
    const left = x - radius - 1;
    if (left >= 0 && right < width) {
      sum += column[right] - column[left];
      out[at + x] = sum * whole;
      continue;
    }
    if (right < width) sum += column[right];
    if (left >= 0) sum -= column[left];
    out[at + x] = sum / (rows * (Math.min(width - 1, right) - Math.max(0, left + 1) + 1));
  }
}
