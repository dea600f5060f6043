declare module "potrace" {
  class Potrace {
    constructor(options: { threshold: number; turdSize: number });
    loadImage(image: Buffer, done: (e: Error | null) => void): void;
    getPathTag(): string;
  }
  const potrace: { Potrace: typeof Potrace };
  export default potrace;
}
