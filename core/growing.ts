/** Growing typed arrays: like `push`, without boxing. `view()` shares memory, `take()` copies to size. */
export class GrowingF64 {
  data: Float64Array;
  length = 0;
  constructor(capacity = 256) {
    this.data = new Float64Array(capacity);
  }
  push(v: number): void {
    if (this.length === this.data.length) {
      const next = new Float64Array(this.data.length * 2);
      next.set(this.data);
      this.data = next;
    }
    this.data[this.length++] = v;
  }
  push2(a: number, b: number): void {
    this.push(a);
    this.push(b);
  }
  take(): Float64Array {
    return this.data.slice(0, this.length);
  }
}

/** As {@link GrowingF64}, for 32-bit integers. */
export class GrowingI32 {
  data: Int32Array;
  length = 0;
  constructor(capacity = 256) {
    this.data = new Int32Array(capacity);
  }
  push(v: number): void {
    if (this.length === this.data.length) {
      const next = new Int32Array(this.data.length * 2);
      next.set(this.data);
      this.data = next;
    }
    this.data[this.length++] = v;
  }
  take(): Int32Array {
    return this.data.slice(0, this.length);
  }
}

/** The values at some places, in their order: what Float64Array.from does in ten times the time. */
export function picked(values: ArrayLike<number>, places: ArrayLike<number>): Float64Array {
  const out = new Float64Array(places.length);
  for (let i = 0; i < out.length; i++) out[i] = values[places[i]];
  return out;
}
