import * as THREE from "three";
import type { Clamp } from "@oaken/core/job/document";

/** Steel from above and from its sides, so that its height is seen without a light of its own. */
const TOP = new THREE.MeshBasicMaterial({ color: 0xb7c2bc });
const SIDE = new THREE.MeshBasicMaterial({ color: 0x7c8983 });
const EDGE = new THREE.LineBasicMaterial({ color: 0x1c2321 });
/** Sides of a screw's head. */
const ROUND = 32;
/** However flat it is said to be, it is drawn this tall, mm. */
const LEAST_TALL = 0.4;

/** What holds the stock, standing on it. */
export class ClampBodies {
  readonly group = new THREE.Group();

  set(clamps: readonly Clamp[]): void {
    for (const mesh of this.group.children as THREE.Mesh[]) mesh.geometry.dispose();
    this.group.clear();
    for (const c of clamps) {
      const tall = Math.max(LEAST_TALL, c.tall);
      const body = c.round ? roundBody(Math.min(c.width, c.height) / 2, tall) : boxBody(c.width, c.height, tall);
      const edges = new THREE.LineSegments(new THREE.EdgesGeometry(body.geometry, 30), EDGE);
      for (const part of [body, edges]) {
        part.position.set(c.x + c.width / 2, c.y + c.height / 2, tall / 2);
        this.group.add(part);
      }
    }
  }
}

function boxBody(width: number, height: number, tall: number): THREE.Mesh {
  // Sides of a box come as ±X, ±Y, ±Z.
  return new THREE.Mesh(new THREE.BoxGeometry(width, height, tall), [SIDE, SIDE, SIDE, SIDE, TOP, SIDE]);
}

function roundBody(radius: number, tall: number): THREE.Mesh {
  const geometry = new THREE.CylinderGeometry(radius, radius, tall, ROUND);
  geometry.rotateX(Math.PI / 2);
  return new THREE.Mesh(geometry, [SIDE, TOP, TOP]);
}
