import * as THREE from "three";
import type { StockSettings } from "@oaken/core/job/document";
import type { Material } from "@oaken/core/cutters/materials";
import { type Light, relit, USUAL_LIGHT } from "@oaken/core/proof/shading";
import type { DrawnSurface } from "../../compute/messages.ts";
import { PIECE_FRAGMENT, PIECE_VERTEX } from "./shaders.ts";

/** Grid points along the piece's longer side: the walls' shading comes from the full heights, not from this. */
const GRID = 640;
/** … seen from straight above, where none is moved by its height. */
const FLAT_GRID = 2;
/** … and without a graphics card. */
const COARSE_GRID = 320;

/** The stock with its computed surface: a displaced grid and four sides, lit from heights kept in a texture. */
export class Board {
  readonly mesh: THREE.Mesh<THREE.BufferGeometry, THREE.ShaderMaterial>;
  private size = "";
  private texture: THREE.DataTexture | null = null;
  private shading: THREE.DataTexture | null = null;
  private maps: THREE.DataTexture[] = [];
  private surface: DrawnSurface | null = null;
  private light = USUAL_LIGHT;
  private relief = new THREE.BufferGeometry();
  private flat = new THREE.BufferGeometry();
  private readonly grid: number;

  /** @param smooth whether the graphics driver interpolates floating-point textures by itself */
  constructor(
    private smooth: boolean,
    slow: boolean,
  ) {
    this.grid = slow ? COARSE_GRID : GRID;
    const one = new THREE.DataTexture(new Uint8Array([255, 255, 255, 0]), 1, 1);
    one.needsUpdate = true;
    this.mesh = new THREE.Mesh(
      new THREE.BufferGeometry(),
      new THREE.ShaderMaterial({
        vertexShader: PIECE_VERTEX,
        fragmentShader: PIECE_FRAGMENT,
        side: THREE.DoubleSide,
        defines: smooth ? { SMOOTH_HEIGHTS: 1 } : {},
        uniforms: {
          heights: { value: null },
          shading: { value: one },
          noiseMap: { value: noiseTable() },
          cells: { value: new THREE.Vector2(1, 1) },
          stock: { value: new THREE.Vector2(1, 1) },
          light: { value: new THREE.Vector3() },
          thickness: { value: 1 },
          proofMix: { value: 1 },
          dim: { value: 0 },
          spacing: { value: 1 },
          face: { value: new THREE.Color() },
          cutFace: { value: new THREE.Color() },
          grain: { value: 1 },
          picture: { value: one },
          pictureRect: { value: new THREE.Vector4(0, 0, 1, 1) },
          pictureMix: { value: 0 },
          wipe: { value: 0 },
          colouring: { value: 0 },
          deepest: { value: 1 },
          cutMap: { value: one },
          lambda: { value: 1 },
          thin: { value: 1 },
          lamp: { value: 0 },
          room: { value: 0 },
          painted: { value: 0 },
          coat: { value: 0 },
          plan: { value: 1 },
          paint: { value: new THREE.Color() },
          leftMap: { value: one },
          cutColours: { value: CUT_COLOURS.map((c) => new THREE.Color(c).convertLinearToSRGB()) },
        },
      }),
    );
    this.mesh.frustumCulled = false;
    this.setLight(USUAL_LIGHT);
  }
  get uniforms() {
    return this.mesh.material.uniforms;
  }

  setStock({ width, height, thickness, paint, coat = 0 }: StockSettings, material: Material): void {
    const u = this.uniforms;
    u.stock.value.set(width, height);
    u.thickness.value = thickness;
    const rgb = (c: readonly number[]) =>
      new THREE.Color().setRGB(c[0] / 255, c[1] / 255, c[2] / 255, THREE.LinearSRGBColorSpace);
    u.face.value = rgb(material.face);
    u.cutFace.value = rgb(material.cut);
    u.grain.value = material.grain;
    u.painted.value = paint ? 1 : 0;
    u.coat.value = paint ? coat : 0;
    if (paint) u.paint.value = new THREE.Color(paint).convertLinearToSRGB();
    const size = `${width}×${height}`;
    if (size !== this.size) {
      this.size = size;
      u.spacing.value = Math.max(width, height) / this.grid;
      this.relief.dispose();
      this.flat.dispose();
      this.relief = grid(width, height, this.grid);
      this.flat = grid(width, height, FLAT_GRID);
      this.setPlan(this.uniforms.plan.value > 0.5);
    }
  }

  /** From straight above depth shows by light alone, so that a few points do for its top. */
  setPlan(isPlan: boolean): void {
    this.uniforms.plan.value = isPlan ? 1 : 0;
    this.mesh.geometry = isPlan ? this.flat : this.relief;
  }

  setSurface(s: DrawnSurface): void {
    this.texture?.dispose();
    this.texture = new THREE.DataTexture(s.z, s.width, s.height, THREE.RedFormat, THREE.FloatType);
    this.texture.minFilter = this.texture.magFilter = this.smooth ? THREE.LinearFilter : THREE.NearestFilter;
    this.texture.needsUpdate = true;
    this.uniforms.heights.value = this.texture;
    this.uniforms.cells.value.set(s.width, s.height);
    this.surface = s;
    this.shade();
    for (const m of this.maps) m.dispose();
    this.maps = [s.by, s.lost ?? new Uint8Array(s.by.length)].map((data) => {
      const t = new THREE.DataTexture(data, s.width, s.height, THREE.RedFormat, THREE.UnsignedByteType);
      t.unpackAlignment = 1;
      t.needsUpdate = true;
      return t;
    });
    [this.uniforms.cutMap.value, this.uniforms.leftMap.value] = this.maps;
    let low = 0;
    for (let i = 0; i < s.z.length; i += 7) if (s.z[i] < low) low = s.z[i];
    this.uniforms.deepest.value = Math.max(0.01, -low);
  }

  /** Turns the light; shadows follow. */
  setLight(light: Light): void {
    this.light = light;
    this.uniforms.light.value.set(light.x, light.y, light.z).normalize();
    this.shade();
  }

  private shade(): void {
    const { surface: s, light } = this;
    if (!s) return;
    // Those of the usual light came with the surface.
    const { data, width, height } = light === USUAL_LIGHT ? s.shading : relit(s, s.shading, light);
    this.shading?.dispose();
    this.shading = new THREE.DataTexture(data, width, height, THREE.RGFormat, THREE.UnsignedByteType);
    this.shading.minFilter = this.shading.magFilter = THREE.LinearFilter;
    this.shading.unpackAlignment = 1;
    this.shading.needsUpdate = true;
    this.uniforms.shading.value = this.shading;
  }
}

/** What each cut's work is coloured in, by turns. */
export const CUT_COLOURS = ["#d98b2b", "#3e8e7e", "#b9524f", "#6e6bb2", "#8ba63f", "#c77fa6", "#4f86c6", "#a07b4f"];

/** Evenly spread values that repeat every 256: the same every time, so that a board keeps its grain. */
function noiseTable(): THREE.DataTexture {
  const side = 256;
  const data = new Uint8Array(side * side);
  let seed = 0x2545f491;
  for (let i = 0; i < data.length; i++) {
    seed ^= seed << 13;
    seed ^= seed >>> 17;
    seed ^= seed << 5;
    data[i] = seed >>> 24;
  }
  const t = new THREE.DataTexture(data, side, side, THREE.RedFormat, THREE.UnsignedByteType);
  t.wrapS = t.wrapT = THREE.RepeatWrapping;
  t.minFilter = t.magFilter = THREE.LinearFilter;
  t.needsUpdate = true;
  return t;
}

function grid(width: number, height: number, points: number): THREE.BufferGeometry {
  const nx = Math.max(2, Math.round((points * width) / Math.max(width, height)));
  const ny = Math.max(2, Math.round((points * height) / Math.max(width, height)));
  const position: number[] = [];
  const skirt: number[] = [];
  const side: number[] = [];
  const index: number[] = [];
  for (let j = 0; j <= ny; j++)
    for (let i = 0; i <= nx; i++) {
      position.push((i / nx) * width, (j / ny) * height, 0);
      skirt.push(0);
      side.push(0, 0, 0);
    }
  for (let j = 0; j < ny; j++)
    for (let i = 0; i < nx; i++) {
      const a = j * (nx + 1) + i;
      index.push(a, a + 1, a + nx + 1, a + 1, a + nx + 2, a + nx + 1);
    }
  const wall = (n: number, at: (k: number) => [number, number], facing: [number, number, number]) => {
    const base = skirt.length;
    for (let k = 0; k <= n; k++) {
      const [x, y] = at(k / n);
      for (const s of [0, 1]) {
        position.push(x, y, 0);
        skirt.push(s);
        side.push(...facing);
      }
    }
    for (let k = 0; k < n; k++) {
      const a = base + 2 * k;
      index.push(a, a + 1, a + 2, a + 1, a + 3, a + 2);
    }
  };
  wall(nx, (k) => [k * width, 0], [0, -1, 0]);
  wall(nx, (k) => [k * width, height], [0, 1, 0]);
  wall(ny, (k) => [0, k * height], [-1, 0, 0]);
  wall(ny, (k) => [width, k * height], [1, 0, 0]);
  const g = new THREE.BufferGeometry();
  g.setAttribute("position", new THREE.Float32BufferAttribute(position, 3));
  g.setAttribute("skirt", new THREE.Float32BufferAttribute(skirt, 1));
  g.setAttribute("side", new THREE.Float32BufferAttribute(side, 3));
  g.setIndex(index);
  return g;
}

/** A picture with its rows turned round: textures begin at the near edge. */
export function rowsTurned(p: { width: number; height: number; rgba: Uint8ClampedArray }): Uint8Array {
  const out = new Uint8Array(p.rgba.length);
  const row = 4 * p.width;
  for (let y = 0; y < p.height; y++) out.set(p.rgba.subarray(y * row, (y + 1) * row), (p.height - 1 - y) * row);
  return out;
}
