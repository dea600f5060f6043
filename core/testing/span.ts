/** The smallest and the largest of many numbers, and where they were: to assert each of a million takes minutes. */
export class Span {
  least = Infinity;
  most = -Infinity;
  leastAt = "";
  mostAt = "";

  /** NaN counts as both, for good. @param at where the number was */
  take(value: number, at: () => string = () => ""): void {
    if (Number.isNaN(value) || value < this.least) [this.least, this.leastAt] = [value, at()];
    if (Number.isNaN(value) || value > this.most) [this.most, this.mostAt] = [value, at()];
  }
}
