import { profileOf } from "@oaken/core/cutters/profile";
import type { BuildResult } from "@oaken/core/job/build";
import { shadingOf } from "@oaken/core/proof/shading";
import { newSurface, type Surface, usualCell } from "@oaken/core/proof/surface";
import { sweep } from "@oaken/core/proof/sweep";
import type { DrawnSurface } from "./messages.ts";

/** Moments kept of each run, so that going back starts close by. */
const MOMENTS = 24;
/** Cells while scrubbing: fewer than the finished proof has, so that any moment is there at once. */
const CELLS = 500_000;

/** The surface after any move of any cut: kept moments at even shares of the work, and sweeping on from the nearest. */
export class Scrubber {
  private kept: { cut: number; move: number; z: Float32Array; by: Uint8Array }[] = [];
  private now: Surface;
  private cut = 0;
  private move = 0;
  private every: number;
  constructor(private build: BuildResult) {
    const { width, height, thickness } = build.job.stock;
    this.now = newSurface(width, height, Math.max(build.proof.cell, usualCell(width, height, CELLS)), thickness);
    let total = 0;
    for (const c of build.cuts) if (c.cut.on) total += c.toolpath.kind.length;
    this.every = Math.max(200, Math.ceil(total / MOMENTS));
  }

  at(cut: number, move: number): DrawnSurface {
    if (cut < this.cut || (cut === this.cut && move < this.move)) this.back(cut, move);
    while (this.cut < cut) {
      this.forward(this.build.cuts[this.cut].toolpath.kind.length);
      this.cut++;
      this.move = 0;
    }
    if (cut < this.build.cuts.length) this.forward(Math.min(move, this.build.cuts[cut].toolpath.kind.length));
    return {
      cell: this.now.cell,
      width: this.now.width,
      height: this.now.height,
      z: this.now.z.slice(),
      by: this.now.by.slice(),
      shading: shadingOf(this.now),
      lost: null,
    };
  }

  private forward(to: number): void {
    const c = this.build.cuts[this.cut];
    while (this.move < to) {
      const next = Math.min(to, (Math.floor(this.move / this.every) + 1) * this.every);
      if (c.cut.on) sweep(this.now, c.toolpath, profileOf(c.cut.cutter), this.cut + 1, this.move, next);
      this.move = next;
      if (next % this.every === 0 && !this.kept.some((k) => k.cut === this.cut && k.move === next))
        this.kept.push({ cut: this.cut, move: next, z: this.now.z.slice(), by: this.now.by.slice() });
    }
  }

  private back(cut: number, move: number): void {
    let best: (typeof this.kept)[number] | null = null;
    for (const k of this.kept)
      if (
        (k.cut < cut || (k.cut === cut && k.move <= move)) &&
        (!best || k.cut > best.cut || (k.cut === best.cut && k.move > best.move))
      )
        best = k;
    if (best) {
      this.now.z.set(best.z);
      this.now.by.set(best.by);
      this.cut = best.cut;
      this.move = best.move;
    } else {
      this.now.z.fill(0);
      this.now.by.fill(0);
      this.cut = 0;
      this.move = 0;
    }
  }
}
