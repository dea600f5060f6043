import * as THREE from "three";
import { SHOWN } from "../store.ts";
import { LineMaterial } from "three/examples/jsm/lines/LineMaterial.js";
import { LineSegments2 } from "three/examples/jsm/lines/LineSegments2.js";
import { LineSegmentsGeometry } from "three/examples/jsm/lines/LineSegmentsGeometry.js";
import { arcSteps } from "@oaken/core/geometry/shape";
import { ARC_CCW, ARC_CW, RAPID, sweepOf, type Toolpath } from "@oaken/core/toolpath/toolpath";
import type { DrawnCut, DrawnRings } from "../../compute/messages.ts";

/** Lines a set number of pixels wide, always on top. */
export class WideLines {
  readonly object: LineSegments2;
  /** how strongly they are shown once there are any */
  private strength = 0;
  constructor(colour: number, width: number) {
    const material = new LineMaterial({ color: colour, linewidth: width, depthTest: false, transparent: true });
    this.object = new LineSegments2(new LineSegmentsGeometry(), material);
    this.object.frustumCulled = false;
    this.object.renderOrder = 5;
    this.object.visible = false;
  }
  set(positions: Float32Array): void {
    this.object.geometry.dispose();
    this.object.geometry = new LineSegmentsGeometry();
    if (positions.length > 0) this.object.geometry.setPositions(positions);
    this.object.userData.empty = positions.length === 0;
    this.show(this.strength);
  }
  show(strength: number): void {
    this.strength = strength;
    this.object.visible = strength > SHOWN && !this.object.userData.empty;
    this.object.material.opacity = strength;
  }
}

/** Segments of closed rings, split into outer ones and holes by their direction. */
export function ringSegments(r: DrawnRings): { outer: Float32Array; holes: Float32Array } {
  const outer: number[] = [];
  const holes: number[] = [];
  for (let k = 0; k < r.starts.length - 1; k++) {
    const s = r.starts[k];
    const e = r.starts[k + 1];
    let area = 0;
    for (let i = s; i < e; i++) {
      const j = i + 1 < e ? i + 1 : s;
      area += r.xy[2 * i] * r.xy[2 * j + 1] - r.xy[2 * j] * r.xy[2 * i + 1];
    }
    const out = area >= 0 ? outer : holes;
    for (let i = s; i < e; i++) {
      const j = i + 1 < e ? i + 1 : s;
      out.push(r.xy[2 * i], r.xy[2 * i + 1], 0.05, r.xy[2 * j], r.xy[2 * j + 1], 0.05);
    }
  }
  return { outer: Float32Array.from(outer), holes: Float32Array.from(holes) };
}

const RAMP = [
  [248, 231, 176],
  [240, 168, 72],
  [207, 79, 75],
  [91, 42, 94],
].map((c) => c.map((v) => v / 255));
function depthColour(t: number, out: number[]): void {
  const s = Math.max(0, Math.min(2.999, t * 3));
  const i = Math.floor(s);
  for (let k = 0; k < 3; k++) out.push(RAMP[i][k] + (s - i) * (RAMP[i + 1][k] - RAMP[i][k]));
}

/** Chords of arcs on screen stay this close, mm. */
const ARC_TOLERANCE = 0.02;

/** Cutting moves coloured by depth, and rapids, as segment positions. `only` names one cut to show alone. */
export function pathSegments(
  cuts: readonly DrawnCut[],
  deepest: number,
  only: string | null,
): { cut: Float32Array; colour: Float32Array; rapid: Float32Array } {
  const cut: number[] = [];
  const colour: number[] = [];
  const rapid: number[] = [];
  for (const c of cuts) {
    if (!c.on || (only && c.id !== only)) continue;
    const t = c.toolpath;
    for (let i = 1; i < t.kind.length; i++) {
      const isRapid = t.kind[i] === RAPID;
      const to = isRapid ? rapid : cut;
      eachChord(t, i, (x0, y0, z0, x1, y1, z1) => {
        to.push(x0, y0, z0, x1, y1, z1);
        if (!isRapid) {
          depthColour(-z0 / deepest, colour);
          depthColour(-z1 / deepest, colour);
        }
      });
    }
  }
  return { cut: Float32Array.from(cut), colour: Float32Array.from(colour), rapid: Float32Array.from(rapid) };
}

function eachChord(
  t: Toolpath,
  i: number,
  visit: (x0: number, y0: number, z0: number, x1: number, y1: number, z1: number) => void,
): void {
  if (t.kind[i] !== ARC_CW && t.kind[i] !== ARC_CCW)
    return visit(t.x[i - 1], t.y[i - 1], t.z[i - 1], t.x[i], t.y[i], t.z[i]);
  const sweep = sweepOf(t, i);
  const r = Math.hypot(t.x[i] - t.cx[i], t.y[i] - t.cy[i]);
  const a0 = Math.atan2(t.y[i - 1] - t.cy[i], t.x[i - 1] - t.cx[i]);
  const n = arcSteps(r, sweep, ARC_TOLERANCE);
  let [px, py, pz] = [t.x[i - 1], t.y[i - 1], t.z[i - 1]];
  for (let k = 1; k <= n; k++) {
    const x = k === n ? t.x[i] : t.cx[i] + r * Math.cos(a0 + (sweep * k) / n);
    const y = k === n ? t.y[i] : t.cy[i] + r * Math.sin(a0 + (sweep * k) / n);
    const z = t.z[i - 1] + ((t.z[i] - t.z[i - 1]) * k) / n;
    visit(px, py, pz, x, y, z);
    [px, py, pz] = [x, y, z];
  }
}

/**
 * Cutting moves are drawn this wide, px, as long as there are no more of them than MOST_WIDE; then as thin as the card
 * draws.
 */
const PATH_WIDTH = 2;
const MOST_WIDE = 120_000;

/** Cuts as lines with a colour at each end, rapids dashed in one colour. */
export class PathLines {
  readonly group = new THREE.Group();
  private wide = new LineSegments2(
    new LineSegmentsGeometry(),
    new LineMaterial({ vertexColors: true, linewidth: PATH_WIDTH, depthTest: false, transparent: true }),
  );
  private thin = new THREE.LineSegments(
    new THREE.BufferGeometry(),
    new THREE.LineBasicMaterial({ vertexColors: true, transparent: true, depthTest: false }),
  );
  private rapid = new THREE.LineSegments(
    new THREE.BufferGeometry(),
    new THREE.LineDashedMaterial({ color: 0xd8e6dc, dashSize: 1.6, gapSize: 1.6, transparent: true, depthTest: false }),
  );
  constructor() {
    for (const o of [this.wide, this.thin, this.rapid]) {
      o.frustumCulled = false;
      o.renderOrder = 4;
    }
    this.group.add(this.rapid, this.thin, this.wide);
  }
  set(p: ReturnType<typeof pathSegments>): void {
    const wide = p.cut.length > 0 && p.cut.length / 6 <= MOST_WIDE;
    this.wide.visible = wide;
    this.thin.visible = !wide;
    for (const o of [this.wide, this.thin, this.rapid]) o.geometry.dispose();
    this.wide.geometry = new LineSegmentsGeometry();
    this.thin.geometry = new THREE.BufferGeometry();
    this.rapid.geometry = new THREE.BufferGeometry();
    if (wide) {
      this.wide.geometry.setPositions(p.cut);
      this.wide.geometry.setColors(p.colour);
    } else {
      this.thin.geometry.setAttribute("position", new THREE.BufferAttribute(p.cut, 3));
      this.thin.geometry.setAttribute("color", new THREE.BufferAttribute(p.colour, 3));
    }
    this.rapid.geometry.setAttribute("position", new THREE.BufferAttribute(p.rapid, 3));
    this.rapid.computeLineDistances();
  }
  show(strength: number): void {
    this.group.visible = strength > SHOWN;
    this.wide.material.opacity = this.thin.material.opacity = strength;
    this.rapid.material.opacity = 0.55 * strength;
  }
}
