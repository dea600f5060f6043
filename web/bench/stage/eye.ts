import * as THREE from "three";
import { isPlan, MOST_TILT } from "./tilt.ts";

const FOV = 22;
/** The view's least and most distance, mm. */
const NEAREST = 8;
const FARTHEST = 40000;
/** Panning a tilted view: depth is taken to be shortened to this share at most. */
const LEAST_FORESHORTENED = 0.4;

/** From where the stage is looked at: a camera over the stock, moved by hand. Lengths in mm, places in CSS pixels. */
export class Eye {
  readonly camera = new THREE.PerspectiveCamera(FOV, 1, 1, 20000);
  view = { x: 0, y: 0, distance: 500, tilt: 0 };
  /** grows with each move */
  moves = 0;
  private size = { width: 1, height: 1 };
  private stock = { width: 1, height: 1, thickness: 1 };
  private movedTo = "";
  private watchers = new Set<() => void>();

  setStock({ width, height, thickness }: { width: number; height: number; thickness: number }): void {
    this.stock = { width, height, thickness };
  }

  resize(width: number, height: number): void {
    this.size = { width, height };
    this.camera.aspect = width / height;
  }

  get isPlan(): boolean {
    return isPlan(this.view.tilt / MOST_TILT);
  }

  /** Shows the whole stock with some mat round it. */
  fit(): void {
    const { width, height, thickness } = this.stock;
    this.view.x = width / 2;
    this.view.y = height / 2;
    const v = new THREE.Vector3();
    const extent = () => {
      this.aim();
      const e = { x: 0, low: Infinity, high: -Infinity };
      for (const x of [0, width])
        for (const y of [0, height])
          for (const z of [0, -thickness]) {
            v.set(x, y, z).project(this.camera);
            e.x = Math.max(e.x, Math.abs(v.x));
            e.low = Math.min(e.low, v.y);
            e.high = Math.max(e.high, v.y);
          }
      return e;
    };
    // Distance and middle depend on each other once the view is tilted: settle them in turns.
    for (let round = 0; round < 6; round++) {
      let lo = 10;
      let hi = 50 * Math.max(width, height);
      for (let i = 0; i < 20; i++) {
        this.view.distance = (lo + hi) / 2;
        const e = extent();
        if (e.x > 0.88 || e.high - e.low > 1.56) lo = this.view.distance;
        else hi = this.view.distance;
      }
      this.view.distance = hi;
      const e = extent();
      const middle = (e.low + e.high) / 2;
      if (Math.abs(middle) < 0.005) break;
      this.view.y += (middle * hi * Math.tan((FOV * Math.PI) / 360)) / Math.max(0.3, Math.cos(this.view.tilt));
    }
  }

  /** Puts the camera where the view says. */
  aim(): void {
    const { x, y, distance, tilt } = this.view;
    this.camera.position.set(x, y - distance * Math.sin(tilt), distance * Math.cos(tilt));
    this.camera.up.set(0, Math.cos(tilt), Math.sin(tilt));
    this.camera.lookAt(x, y, 0);
    this.camera.near = distance / 50;
    this.camera.far = distance * 20;
    this.camera.updateProjectionMatrix();
    this.camera.updateMatrixWorld();
  }

  /** The ray from the eye through a point of the canvas, CSS pixels. */
  rayAt(px: number, py: number): THREE.Ray {
    const { width, height } = this.size;
    const caster = new THREE.Raycaster();
    caster.setFromCamera(new THREE.Vector2((px / width) * 2 - 1, 1 - (py / height) * 2), this.camera);
    return caster.ray;
  }

  /** The place at the height of the stock's top under a point of the canvas, on the stock or beside it, mm. */
  placeAt(px: number, py: number): { x: number; y: number } | null {
    return this.rayAt(px, py).intersectPlane(new THREE.Plane(new THREE.Vector3(0, 0, 1)), new THREE.Vector3());
  }

  /** Where a point of the stock appears on the canvas, CSS pixels. */
  project(x: number, y: number, z: number): { x: number; y: number } {
    const v = new THREE.Vector3(x, y, z).project(this.camera);
    return { x: ((v.x + 1) / 2) * this.size.width, y: ((1 - v.y) / 2) * this.size.height };
  }

  /** Tells of every move of the view. @returns ends it */
  onMoved = (told: () => void): (() => void) => {
    this.watchers.add(told);
    return () => void this.watchers.delete(told);
  };

  tell(): void {
    for (const told of this.watchers) told();
  }

  /** Moves the view by so many pixels of the screen. */
  pan(dx: number, dy: number): void {
    const perPixel = this.perPixel();
    this.view.x -= dx * perPixel;
    this.view.y += (dy * perPixel) / Math.max(LEAST_FORESHORTENED, Math.cos(this.view.tilt));
  }

  /** Goes so many times as far away; a place of the stock, where one is given, stays where it is seen. */
  zoom(k: number, fixed: { x: number; y: number } | null): void {
    this.view.distance = Math.max(NEAREST, Math.min(FARTHEST, this.view.distance * k));
    if (!fixed) return;
    this.view.x += (fixed.x - this.view.x) * (1 - k);
    this.view.y += (fixed.y - this.view.y) * (1 - k);
  }

  /** Millimetres under a pixel in the middle of the view. */
  perPixel(): number {
    return (2 * this.view.distance * Math.tan((FOV * Math.PI) / 360)) / this.size.height;
  }

  /** Whether the view has moved since this was last asked; those who wait for it are told by {@link tell}. */
  hasMoved(): boolean {
    const { x, y, distance, tilt } = this.view;
    const now = [x, y, distance, tilt, this.size.width, this.size.height].join();
    if (now === this.movedTo) return false;
    this.movedTo = now;
    this.moves++;
    return true;
  }
}
