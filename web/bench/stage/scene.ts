import * as THREE from "three";
import type { Cutter } from "@oaken/core/cutters/profile";
import type { StockSettings } from "@oaken/core/job/document";
import type { Litho } from "@oaken/core/makings/product";
import type { Light } from "@oaken/core/proof/shading";
import type { Built, DrawnOutline, DrawnRaster, DrawnRings, DrawnSurface } from "../../compute/messages.ts";
import { COLOURINGS, type Colouring, type Glow, type Mixer } from "../store.ts";
import { PathLines, pathSegments, ringSegments, WideLines } from "./lines.ts";
import { OutlineMarks } from "./outline-marks.ts";
import { Board, rowsTurned } from "./board.ts";
import { ClampBodies } from "./clamps.ts";
import { crossSegments, zeroSegments } from "./marks.ts";
import { type Picked, pickOn } from "./pick.ts";
import { MAT_FRAGMENT, MAT_VERTEX } from "./shaders.ts";
import { Smoother } from "./smoother.ts";
import { ShownCutter } from "./shown-cutter.ts";

const FOV = 22;
/** The view's least and most distance, mm. */
const NEAREST = 8;
const FARTHEST = 40000;
/** Panning a tilted view: depth is taken to be shortened to this share at most. */
const LEAST_FORESHORTENED = 0.4;
/** Tilt of the lowest view, radians from straight above. */
export const MOST_TILT = 1.15;
/** Tilts under this are straight above, radians. */
const PLAN = 0.02;
const CHALK = 0xf2d45c;
/** How much darker the stock is under paths alone. */
const PATHS_DIM = 0.5;
/** How far crosses reach to each side, as a share of the stock's longer side. */
const CROSS = 0.012;
/** Nodes are drawn from this near, in lengths of the stock. */
const NODES_WITHIN = 1.4;

/** Without a graphics card every pixel costs: smooth edges then come only once nothing has moved for so long, ms. */
const REST = 350;

/** Whether the browser draws 3D without a graphics card. */
function drawsInSoftware(): boolean {
  const gl = document.createElement("canvas").getContext("webgl2");
  const named = gl?.getExtension("WEBGL_debug_renderer_info");
  const renderer = named ? String(gl!.getParameter(named.UNMASKED_RENDERER_WEBGL)) : "";
  gl?.getExtension("WEBGL_lose_context")?.loseContext();
  return /swiftshader|llvmpipe|software|basic render/i.test(renderer);
}

/** Everything on the mat, drawn when something changed and not otherwise. */
export class StageScene {
  private renderer: THREE.WebGLRenderer;
  private scene = new THREE.Scene();
  readonly camera = new THREE.PerspectiveCamera(FOV, 1, 1, 20000);
  private board: Board;
  private mat: THREE.Mesh<THREE.PlaneGeometry, THREE.ShaderMaterial>;
  private outer = new WideLines(0x7df0c8, 1.8);
  private holes = new WideLines(0xff9d6b, 1.8);
  private paths = new PathLines();
  private zero = new WideLines(CHALK, 3.5);
  private marks = new WideLines(0xff5a36, 2.5);
  private outlineMarks = new OutlineMarks();
  private cutter = new ShownCutter();
  private clamps = new ClampBodies();
  private frame = 0;
  private readonly slow = drawsInSoftware();
  private smoother: Smoother | null = null;
  private size = { width: 1, height: 1 };
  private stock = { width: 1, height: 1, thickness: 1 };
  view = { x: 0, y: 0, distance: 500, tilt: 0 };
  surface: DrawnSurface | null = null;
  /** more is on its way: no time for smooth edges */
  private busy = true;
  /** grows with each move of the view */
  moves = 0;
  private movedTo = "";
  private watchers = new Set<() => void>();

  constructor(private canvas: HTMLCanvasElement) {
    this.renderer = new THREE.WebGLRenderer({ canvas, antialias: !this.slow, preserveDrawingBuffer: true });
    this.renderer.outputColorSpace = THREE.LinearSRGBColorSpace;
    this.renderer.setClearColor(0x1c352f);
    if (this.slow) this.smoother = new Smoother(this.renderer);
    this.board = new Board(this.renderer.extensions.has("OES_texture_float_linear"), this.slow);
    this.mat = new THREE.Mesh(
      new THREE.PlaneGeometry(1, 1),
      new THREE.ShaderMaterial({
        vertexShader: MAT_VERTEX,
        fragmentShader: MAT_FRAGMENT,
        uniforms: {
          stock: { value: new THREE.Vector2(1, 1) },
          thickness: { value: 1 },
          light: this.board.uniforms.light,
        },
      }),
    );
    this.mat.frustumCulled = false;
    this.scene.add(
      this.mat,
      this.board.mesh,
      this.outer.object,
      this.holes.object,
      this.paths.group,
      this.outlineMarks.group,
      this.zero.object,
      this.marks.object,
      this.cutter.group,
      this.clamps.group,
    );
    this.zero.object.renderOrder = 6;
  }

  setStock(stock: StockSettings): void {
    const { width, height, thickness, material } = stock;
    this.stock = { width, height, thickness };
    this.board.setStock(stock, material);
    const reach = 12 * Math.max(width, height);
    this.mat.geometry.dispose();
    this.mat.geometry = new THREE.PlaneGeometry(reach, reach);
    this.mat.geometry.translate(width / 2, height / 2, -thickness - 0.05);
    this.mat.material.uniforms.stock.value.set(width, height);
    this.mat.material.uniforms.thickness.value = thickness;
    this.zero.set(zeroSegments(stock));
    this.zero.show(1);
    this.clamps.set(stock.clamps ?? []);
    this.draw();
  }

  setBusy(busy: boolean): void {
    this.busy = busy;
    if (busy) this.smoother?.end();
    else this.draw();
  }

  setSurface(s: DrawnSurface): void {
    if (s === this.surface) return;
    this.surface = s;
    this.board.setSurface(s);
    this.draw();
  }

  setPicture(url: string | null, place: DrawnRaster["place"] | null): void {
    if (!url || !place) return;
    this.board.uniforms.pictureRect.value.set(place.x0, place.y0, place.width, place.height);
    if (this.canvas.dataset.picture === url) return this.draw();
    this.canvas.dataset.picture = url;
    new THREE.TextureLoader().load(url, (t) => {
      t.colorSpace = THREE.NoColorSpace;
      t.generateMipmaps = true;
      t.minFilter = THREE.LinearMipmapLinearFilter;
      this.board.uniforms.picture.value = t;
      this.draw();
    });
  }

  /** A picture that only the page has: framed, or in the tones of a moving slider. */
  setPixels(p: { width: number; height: number; rgba: Uint8ClampedArray }, place: DrawnRaster["place"] | null): void {
    if (!place) return;
    this.canvas.dataset.picture = "";
    const u = this.board.uniforms;
    u.pictureRect.value.set(place.x0, place.y0, place.width, place.height);
    const t = new THREE.DataTexture(rowsTurned(p), p.width, p.height, THREE.RGBAFormat, THREE.UnsignedByteType);
    t.generateMipmaps = true;
    t.minFilter = THREE.LinearMipmapLinearFilter;
    t.magFilter = THREE.LinearFilter;
    t.needsUpdate = true;
    if (u.picture.value instanceof THREE.DataTexture) u.picture.value.dispose();
    u.picture.value = t;
    this.draw();
  }

  setTone(t: { width: number; height: number; grey: Uint8ClampedArray }, place: DrawnRaster["place"] | null): void {
    const rgba = new Uint8ClampedArray(4 * t.grey.length);
    for (let i = 0, o = 0; i < t.grey.length; i++, o += 4) {
      rgba[o] = rgba[o + 1] = rgba[o + 2] = t.grey[i];
      rgba[o + 3] = 255;
    }
    this.setPixels({ width: t.width, height: t.height, rgba }, place);
  }

  /** Thin strokes, centre lines, bridges and, near enough, nodes; null for none. */
  setOutlineMarks(o: DrawnOutline | null): void {
    this.outlineMarks.set(o);
    this.draw();
  }

  setOutline(r: DrawnRings | null): void {
    const s = r ? ringSegments(r) : { outer: new Float32Array(0), holes: new Float32Array(0) };
    this.outer.set(s.outer);
    this.holes.set(s.holes);
    this.draw();
  }

  setPaths(cuts: Built["cuts"], only: string | null): void {
    let deepest = 0.01;
    for (const c of cuts) deepest = Math.max(deepest, -c.minZ);
    this.paths.set(pathSegments(cuts, deepest, only));
    this.draw();
  }

  setMixer(m: Mixer, colouring: Colouring): void {
    this.board.uniforms.pictureMix.value = m.picture;
    this.board.uniforms.proofMix.value = m.proof;
    this.board.uniforms.dim.value = PATHS_DIM * m.paths * (1 - m.proof) * (1 - m.picture);
    this.board.uniforms.colouring.value = COLOURINGS.indexOf(colouring);
    this.outer.show(m.outline);
    this.holes.show(m.outline);
    this.paths.show(m.paths);
    this.draw();
  }

  /** The light law of a sheet that is to glow, and the light on it. */
  setGlow({ lambda, thin }: Pick<Litho, "lambda" | "thin">, { lamp, room }: Glow): void {
    const u = this.board.uniforms;
    [u.lambda.value, u.thin.value, u.lamp.value, u.room.value] = [lambda, thin, lamp, room];
    this.draw();
  }

  /** Where the light comes from. */
  setLight(light: Light): void {
    this.board.setLight(light);
    this.draw();
  }

  /** Wipe line in CSS pixels from the left, 0 for none. */
  setWipe(x: number): void {
    this.board.uniforms.wipe.value = x * this.renderer.getPixelRatio();
    this.draw();
  }

  /** Crosses at places, mm: x, y by turns. */
  setMarks(at: ArrayLike<number>): void {
    const crosses = crossSegments(at, CROSS * Math.max(this.stock.width, this.stock.height));
    this.marks.set(crosses);
    this.marks.show(crosses.length > 0 ? 1 : 0);
    this.draw();
  }

  /** The cutter's own shape at a place, or none. */
  setCutter(c: Cutter | null, x = 0, y = 0, z = 0): void {
    const isGone = c === null && !this.cutter.isShown;
    this.cutter.set(c);
    this.cutter.group.position.set(x, y, z);
    if (!isGone) this.draw();
  }

  resize(width: number, height: number): void {
    this.size = { width, height };
    this.renderer.setPixelRatio(Math.min(2, window.devicePixelRatio));
    this.renderer.setSize(width, height, false);
    this.camera.aspect = width / height;
    this.draw();
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
    this.draw();
  }

  private aim(): void {
    const { x, y, distance, tilt } = this.view;
    this.board.uniforms.plan.value = tilt < PLAN ? 1 : 0;
    this.camera.position.set(x, y - distance * Math.sin(tilt), distance * Math.cos(tilt));
    this.camera.up.set(0, Math.cos(tilt), Math.sin(tilt));
    this.camera.lookAt(x, y, 0);
    this.camera.near = distance / 50;
    this.camera.far = distance * 20;
    this.camera.updateProjectionMatrix();
    this.camera.updateMatrixWorld();
  }

  /** The point on the stock under a place of the canvas (CSS pixels), on the computed surface; null off the mat. */
  pick(px: number, py: number): Picked | null {
    return pickOn(this.surface, this.rayAt(px, py));
  }

  private rayAt(px: number, py: number): THREE.Ray {
    const { clientWidth, clientHeight } = this.canvas;
    const caster = new THREE.Raycaster();
    caster.setFromCamera(new THREE.Vector2((px / clientWidth) * 2 - 1, 1 - (py / clientHeight) * 2), this.camera);
    return caster.ray;
  }

  /** The place at the height of the stock's top under a point of the canvas, on the stock or beside it, mm. */
  placeAt(px: number, py: number): { x: number; y: number } | null {
    return this.rayAt(px, py).intersectPlane(new THREE.Plane(new THREE.Vector3(0, 0, 1)), new THREE.Vector3());
  }

  /** Where a point of the stock appears on the canvas, CSS pixels. */
  project(x: number, y: number, z: number): { x: number; y: number } {
    const v = new THREE.Vector3(x, y, z).project(this.camera);
    return { x: ((v.x + 1) / 2) * this.canvas.clientWidth, y: ((1 - v.y) / 2) * this.canvas.clientHeight };
  }

  /** Tells of every move of the view. @returns ends it */
  onMoved = (told: () => void): (() => void) => {
    this.watchers.add(told);
    return () => void this.watchers.delete(told);
  };

  /** Moves the view by so many pixels of the screen. */
  pan(dx: number, dy: number): void {
    const perPixel = this.perPixel();
    this.view.x -= dx * perPixel;
    this.view.y += (dy * perPixel) / Math.max(LEAST_FORESHORTENED, Math.cos(this.view.tilt));
    this.draw();
  }

  /** Goes so many times as far away, the place under a point of the canvas staying where it is. */
  zoom(k: number, px?: number, py?: number): void {
    const under = px === undefined ? null : this.pick(px, py!);
    this.view.distance = Math.max(NEAREST, Math.min(FARTHEST, this.view.distance * k));
    if (under) {
      this.view.x += (under.x - this.view.x) * (1 - k);
      this.view.y += (under.y - this.view.y) * (1 - k);
    }
    this.draw();
  }

  /** Millimetres under a pixel in the middle of the view. */
  private perPixel(): number {
    return (2 * this.view.distance * Math.tan((FOV * Math.PI) / 360)) / this.size.height;
  }

  draw(): void {
    this.smoother?.end();
    if (this.frame) return;
    this.frame = requestAnimationFrame(() => {
      this.frame = 0;
      this.render();
      this.tellMoved();
    });
  }

  private tellMoved(): void {
    const { x, y, distance, tilt } = this.view;
    const now = [x, y, distance, tilt, this.size.width, this.size.height].join();
    if (now === this.movedTo) return;
    this.movedTo = now;
    this.moves++;
    for (const told of this.watchers) told();
  }

  private render(): void {
    this.aim();
    this.outlineMarks.placeNodes(
      this.perPixel(),
      this.view.distance < NODES_WITHIN * Math.max(this.stock.width, this.stock.height),
    );
    this.renderer.render(this.scene, this.camera);
    if (this.busy) return;
    const { wipe } = this.board.uniforms;
    const at = wipe.value as number;
    this.smoother?.begin(this.scene, this.camera, REST, (k) => (wipe.value = k * at));
  }

  dispose(): void {
    this.smoother?.dispose();
    cancelAnimationFrame(this.frame);
    this.renderer.dispose();
  }
}
