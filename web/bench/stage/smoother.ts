import * as THREE from "three";

/** Pixels drawn for each of the screen's, sideways: their mean has smooth edges. */
const FINER = 2;
/** A drawing is made in so many strips, with room for other work between them. */
const STRIPS = 4;
/** Rest between two strips, ms. */
const BETWEEN = 16;

/**
 * Draws a scene once more with smooth edges where no graphics card does that at once: off the screen, strip by strip
 * while nothing moves, and shown when all is there. Any change ends it; a hand never waits for it.
 */
export class Smoother {
  private target: THREE.WebGLRenderTarget | null = null;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private readonly shown = new THREE.Scene();
  private readonly camera = new THREE.OrthographicCamera(-1, 1, 1, -1, 0, 1);
  private readonly picture = new THREE.MeshBasicMaterial({ depthTest: false, depthWrite: false, toneMapped: false });

  constructor(private renderer: THREE.WebGLRenderer) {
    this.shown.add(new THREE.Mesh(new THREE.PlaneGeometry(2, 2), this.picture));
  }

  /**
   * Begins after a rest.
   * @param scaled tells the scene how many pixels one of the screen's is now: what is measured in pixels follows
   */
  begin(scene: THREE.Scene, camera: THREE.Camera, rest: number, scaled: (k: number) => void): void {
    this.end();
    this.timer = setTimeout(() => this.strip(0, scene, camera, scaled), rest);
  }

  end(): void {
    clearTimeout(this.timer);
  }

  dispose(): void {
    this.end();
    this.target?.dispose();
    this.picture.dispose();
  }

  private strip(k: number, scene: THREE.Scene, camera: THREE.Camera, scaled: (k: number) => void): void {
    const { renderer } = this;
    const target = this.sized();
    const { width, height } = target;
    const [low, high] = [k, k + 1].map((n) => Math.round((height * n) / STRIPS));
    target.scissorTest = true;
    target.scissor.set(0, low, width, high - low);
    scaled(FINER);
    renderer.setRenderTarget(target);
    renderer.render(scene, camera);
    renderer.setRenderTarget(null);
    scaled(1);
    if (k + 1 < STRIPS) {
      this.timer = setTimeout(() => this.strip(k + 1, scene, camera, scaled), BETWEEN);
      return;
    }
    renderer.render(this.shown, this.camera);
  }

  /** The picture off the screen, as large as the canvas asks for now. */
  private sized(): THREE.WebGLRenderTarget {
    const size = this.renderer.getDrawingBufferSize(new THREE.Vector2()).multiplyScalar(FINER);
    if (!this.target || this.target.width !== size.x || this.target.height !== size.y) {
      this.target?.dispose();
      this.target = new THREE.WebGLRenderTarget(size.x, size.y);
      this.target.texture.colorSpace = THREE.NoColorSpace;
      this.picture.map = this.target.texture;
    }
    return this.target;
  }
}
