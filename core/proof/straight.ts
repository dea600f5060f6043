/** A straight move, level or sloping: where it begins and ends, mm, and which way it goes. */
export class Straight {
  x0 = 0;
  y0 = 0;
  z0 = 0;
  x1 = 0;
  y1 = 0;
  z1 = 0;
  /** direction */
  ux = 0;
  uy = 0;
  length = 0;
  /** rise for each mm of way */
  slope = 0;
  /** farthest across that it can cut, mm */
  reach = 0;

  /** @returns whether it goes anywhere sideways; what is kept is of no use otherwise */
  protected place(x0: number, y0: number, z0: number, x1: number, y1: number, z1: number): boolean {
    const length = Math.sqrt((x1 - x0) * (x1 - x0) + (y1 - y0) * (y1 - y0));
    if (length < 1e-9) return false;
    this.x0 = x0;
    this.y0 = y0;
    this.z0 = z0;
    this.x1 = x1;
    this.y1 = y1;
    this.z1 = z1;
    this.ux = (x1 - x0) / length;
    this.uy = (y1 - y0) / length;
    this.length = length;
    this.slope = (z1 - z0) / length;
    return true;
  }
}
