import { lightOf } from "../colour.ts";

/** B. Ottosson, "A perceptual color space for image processing", 2020: sRGB (0…1, encoded) to OKLab L, a, b. */
export function oklab(r: number, g: number, b: number): [number, number, number] {
  const [R, G, B] = [lightOf(r), lightOf(g), lightOf(b)];
  const l = Math.cbrt(0.4122214708 * R + 0.5363325363 * G + 0.0514459929 * B);
  const m = Math.cbrt(0.2119034982 * R + 0.6806995451 * G + 0.1073969566 * B);
  const s = Math.cbrt(0.0883024619 * R + 0.2817188376 * G + 0.6299787005 * B);
  return [
    0.2104542553 * l + 0.793617785 * m - 0.0040720468 * s,
    1.9779984951 * l - 2.428592205 * m + 0.4505937099 * s,
    0.0259040371 * l + 0.7827717662 * m - 0.808675766 * s,
  ];
}
