import * as THREE from "three";
import { type Cutter, profileOf } from "@oaken/core/cutters/profile";
import { STEEL_FRAGMENT, STEEL_VERTEX } from "./shaders.ts";

/** Points of a cutter's outline from its tip to its rim, and round it. */
const OUTLINE = 16;
const ROUND = 28;

/** The cutter's own shape on the stage, drawn from its numbers. */
export class ShownCutter {
  readonly group = new THREE.Group();
  private key = "";
  isShown = false;

  /** Shows another cutter, or none. */
  set(c: Cutter | null): void {
    const key = JSON.stringify(c);
    if (key === this.key) return;
    this.key = key;
    this.isShown = c !== null;
    this.group.clear();
    if (!c) return;
    const shape = new THREE.LatheGeometry(outlineOf(c), ROUND);
    shape.rotateX(Math.PI / 2);
    const steel = { vertexShader: STEEL_VERTEX, fragmentShader: STEEL_FRAGMENT, transparent: true };
    const mesh = new THREE.Mesh(shape, new THREE.ShaderMaterial(steel));
    mesh.renderOrder = 3;
    this.group.add(mesh);
  }
}

/** Half of a cutter's outline, from its tip up to the end of its shank. */
function outlineOf(c: Cutter): THREE.Vector2[] {
  const p = profileOf(c);
  const points = [new THREE.Vector2(0, 0)];
  for (let i = 0; i <= OUTLINE; i++) {
    const r = (p.radius * i) / OUTLINE;
    // Just inside the rim, where the cutter has a height.
    const h = p.h(r * 0.9999);
    if (Number.isFinite(h)) points.push(new THREE.Vector2(Math.max(0.01, r), h));
  }
  const top = p.beam ? c.fluteLength : Math.max(p.height, c.fluteLength);
  const end = top + 2 * c.diameter;
  return [...points, new THREE.Vector2(p.radius, top), new THREE.Vector2(p.radius, end), new THREE.Vector2(0, end)];
}
