import * as THREE from "three";
import type { DrawnOutline } from "../../compute/messages.ts";
import { WideLines } from "./lines.ts";

/** Half a node's square on screen, pixels. */
const NODE_HALF = 2.5;

/** What is marked on a selected outline: thin strokes, centre lines, bridges, and nodes once they can be told apart. */
export class OutlineMarks {
  readonly group = new THREE.Group();
  private thin = new WideLines(0xff4f8b, 3);
  private centre = new WideLines(0xf2d45c, 2.2);
  private ties = new WideLines(0xc9b3ff, 4);
  private nodes = new WideLines(0xffffff, 1.5);
  private nodeAt: ArrayLike<number> = [];
  private placedAt = 0;

  constructor() {
    this.group.add(this.thin.object, this.centre.object, this.ties.object, this.nodes.object);
  }

  set(o: DrawnOutline | null): void {
    this.thin.set(lifted(o?.thin ?? []));
    this.ties.set(lifted((o?.bridges ?? []).flatMap((b) => [b.x0, b.y0, b.x1, b.y1])));
    const centre: number[] = [];
    if (o?.lines)
      for (let k = 0; k + 1 < o.lines.starts.length; k++)
        for (let i = o.lines.starts[k]; i + 1 < o.lines.starts[k + 1]; i++)
          centre.push(...o.lines.xy.subarray(2 * i, 2 * i + 4));
    this.centre.set(lifted(centre));
    for (const l of [this.thin, this.ties, this.centre]) l.show(o ? 1 : 0);
    this.nodeAt = o?.nodeAt ?? [];
    this.placedAt = NaN;
  }

  /** @param pixel mm on the stock of one pixel on screen */
  placeNodes(pixel: number, near: boolean): void {
    const want = near && this.nodeAt.length > 0 ? pixel : 0;
    if (want === this.placedAt) return;
    this.placedAt = want;
    const h = NODE_HALF * pixel;
    const p: number[] = [];
    if (want > 0)
      for (let i = 0; i < this.nodeAt.length; i += 2) {
        const [x, y] = [this.nodeAt[i], this.nodeAt[i + 1]];
        p.push(
          x - h,
          y - h,
          0.07,
          x + h,
          y - h,
          0.07,
          x + h,
          y - h,
          0.07,
          x + h,
          y + h,
          0.07,
          x + h,
          y + h,
          0.07,
          x - h,
          y + h,
          0.07,
          x - h,
          y + h,
          0.07,
          x - h,
          y - h,
          0.07,
        );
      }
    this.nodes.set(Float32Array.from(p));
    this.nodes.show(p.length > 0 ? 1 : 0);
  }
}

/** x, y by turns as points just above the stock. */
function lifted(p: ArrayLike<number>): Float32Array {
  const out = new Float32Array((p.length / 2) * 3);
  for (let i = 0; i < p.length / 2; i++) out.set([p[2 * i], p[2 * i + 1], 0.06], 3 * i);
  return out;
}
