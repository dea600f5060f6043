/**
 * Things joined into groups, by union and find (R. Tarjan, "Efficiency of a good but not linear set union algorithm",
 * 1975).
 */
export class Groups {
  private readonly of: Int32Array;
  constructor(count: number) {
    this.of = new Int32Array(count);
    for (let i = 0; i < count; i++) this.of[i] = i;
  }
  /** The thing that stands for the group that i is in. */
  find(i: number): number {
    const { of } = this;
    while (of[i] !== i) i = of[i] = of[of[i]];
    return i;
  }
  /** Joins two groups; what stands for the first stands for both. */
  join(i: number, j: number): void {
    this.of[this.find(j)] = this.find(i);
  }
}
