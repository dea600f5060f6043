declare module "potrace" {
  interface Tracing {
    loadImage(image: Buffer, done: (e: Error | null) => void): void;
    getPathTag(): string;
  }
  const potrace: { Potrace: new (options: { threshold: number; turdSize: number }) => Tracing };
  export default potrace;
}

declare module "imagetracerjs" {
  const tracer: {
    imagedataToSVG(
      image: { width: number; height: number; data: Uint8ClampedArray },
      options: { numberofcolors: number; pathomit: number },
    ): string;
  };
  export default tracer;
}
