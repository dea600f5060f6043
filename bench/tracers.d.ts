declare module "potrace" {
  class Potrace {
    constructor(options: { threshold: number; turdSize: number });
    loadImage(image: Buffer, done: (e: Error | null) => void): void;
    getPathTag(): string;
  }
  const potrace: { Potrace: typeof Potrace };
  export default potrace;
}

declare module "imagetracerjs" {
  const tracer: { imagedataToSVG(image: { width: number; height: number; data: Uint8ClampedArray }, options: { numberofcolors: number; pathomit: number }): string };
  export default tracer;
}
