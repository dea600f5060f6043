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
import { Eye } from "./eye.ts";
import { ClampBodies } from "./clamps.ts";
import { crossSegments, zeroSegments } from "./marks.ts";
import { type Picked, pickOn } from "./pick.ts";
import { MAT_FRAGMENT, MAT_VERTEX } from "./shaders.ts";
import { Smoother } from "./smoother.ts";
import { ShownCutter } from "./shown-cutter.ts";

const CHALK = 0xf2d45c;
/** How much darker the stock is under paths alone. */
const PATHS_DIM = 0.5;
/** How far crosses reach to each side, as a share of the stock's longer side. */
const CROSS = 0.012;
/** Nodes are drawn from this near, in lengths of the stock. */
const NODES_WITHIN = 1.4;

/** Without a graphics card every pixel costs: smooth edges then come only once nothing has moved for so long, ms. */
const REST = 350;
/** … and for so many times as long as a drawing takes. */
const LAGS = 6;
/** A drawing that takes longer than this lags behind a hand, ms; then so few pixels are drawn for each CSS pixel. */
const SLUGGISH = 120;
const COARSE = 0.5;
/** A view that has not moved for so long rests, ms. */
const STILL = 200;

/** Pixels drawn for each CSS pixel, sideways. */
const usualRatio = (): number => Math.min(2, window.devicePixelRatio);

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
  readonly eye = new Eye();
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
  /** the view moves, and is drawn in fewer pixels */
  private isCoarse = false;
  private still: ReturnType<typeof setTimeout> | undefined;
  /** the wipe line, CSS pixels from the left */
  private wipe = 0;
  /** how long the last drawing kept the next frame waiting, ms */
  private lag = 0;
  private size = { width: 1, height: 1 };
  private stock = { width: 1, height: 1 };
  surface: DrawnSurface | null = null;
  /** more is on its way: no time for smooth edges */
  private busy = true;

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
    this.stock = { width, height };
    this.eye.setStock(stock);
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
    this.wipe = x;
    this.draw();
  }

  /** @param finer pixels drawn for each of the canvas's, sideways */
  private placeWipe(finer = 1): void {
    this.board.uniforms.wipe.value = this.wipe * this.renderer.getPixelRatio() * finer;
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
    this.renderer.setPixelRatio(usualRatio());
    this.isCoarse = false;
    this.renderer.setSize(width, height, false);
    this.eye.resize(width, height);
    this.draw();
  }

  /** Shows the whole stock with some mat round it. */
  fit(): void {
    this.eye.fit();
    this.draw();
  }

  /** Moves the view by so many pixels of the screen. */
  pan(dx: number, dy: number): void {
    this.eye.pan(dx, dy);
    this.draw();
  }

  /** Goes so many times as far away, the place under a point of the canvas staying where it is. */
  zoom(k: number, px?: number, py?: number): void {
    this.eye.zoom(k, px === undefined ? null : this.pick(px, py!));
    this.draw();
  }

  /** The point on the stock under a place of the canvas (CSS pixels), on the computed surface; null off the mat. */
  pick(px: number, py: number): Picked | null {
    return pickOn(this.surface, this.eye.rayAt(px, py));
  }

  draw(): void {
    this.smoother?.end();
    if (this.frame) return;
    this.frame = requestAnimationFrame((from) => {
      this.frame = 0;
      const isMoved = this.eye.hasMoved();
      this.keepUp(isMoved);
      this.render();
      if (isMoved) this.eye.tell();
      // The next frame comes late where this one takes long to draw.
      requestAnimationFrame((to) => (this.lag = to - from));
    });
  }

  /** A view that moves is drawn in fewer pixels where drawing is slow, and in all of them once it rests. */
  private keepUp(isMoved: boolean): void {
    clearTimeout(this.still);
    const isCoarse = isMoved && this.slow && (this.isCoarse || this.lag > SLUGGISH);
    if (isCoarse) this.still = setTimeout(() => this.draw(), STILL);
    if (isCoarse === this.isCoarse) return;
    this.isCoarse = isCoarse;
    this.renderer.setPixelRatio(isCoarse ? COARSE : usualRatio());
    this.renderer.setSize(this.size.width, this.size.height, false);
  }

  private render(): void {
    this.eye.aim();
    this.board.setPlan(this.eye.isPlan);
    this.placeWipe();
    this.outlineMarks.placeNodes(
      this.eye.perPixel(),
      this.eye.view.distance < NODES_WITHIN * Math.max(this.stock.width, this.stock.height),
    );
    this.renderer.render(this.scene, this.eye.camera);
    if (this.busy || this.isCoarse) return;
    const rest = Math.max(REST, LAGS * this.lag);
    this.smoother?.begin(this.scene, this.eye.camera, rest, (k) => this.placeWipe(k));
  }

  dispose(): void {
    clearTimeout(this.still);
    this.smoother?.dispose();
    cancelAnimationFrame(this.frame);
    this.renderer.dispose();
  }
}
