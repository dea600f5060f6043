import { parseHex } from "@oaken/core/colour";
import type { Built } from "../../compute/messages.ts";

/** The found colour nearest to the picture's at a place, px of the framed picture. */
export async function pickColour(built: Built, sha: string, px: number, py: number): Promise<string | null> {
  const { raster, shapes } = built.shown;
  if (!shapes?.colours || !raster) return null;
  const at = raster.framed
    ? fromPixels(raster.framed, px / raster.pixels.width, py / raster.pixels.height)
    : await fromImage(sha, px / raster.pixels.width, py / raster.pixels.height);
  if (!at) return null;
  let best: string | null = null;
  let least = Infinity;
  for (const c of shapes.colours) {
    const rgb = parseHex(c.hex)!;
    const d = (rgb[0] - at[0]) ** 2 + (rgb[1] - at[1]) ** 2 + (rgb[2] - at[2]) ** 2;
    if (d < least) [least, best] = [d, c.hex];
  }
  return best;
}

function fromPixels(
  p: { width: number; height: number; rgba: Uint8ClampedArray },
  u: number,
  v: number,
): number[] | null {
  const x = Math.floor(u * p.width);
  const y = Math.floor(v * p.height);
  return x < 0 || y < 0 || x >= p.width || y >= p.height
    ? null
    : [...p.rgba.subarray(4 * (y * p.width + x), 4 * (y * p.width + x) + 3)];
}

async function fromImage(sha: string, u: number, v: number): Promise<number[] | null> {
  if (u < 0 || v < 0 || u >= 1 || v >= 1) return null;
  const blob = await (await fetch(`/api/assets/${sha}/picture`)).blob();
  const image = await createImageBitmap(blob);
  const g = new OffscreenCanvas(1, 1).getContext("2d")!;
  g.fillStyle = "#fff";
  g.fillRect(0, 0, 1, 1);
  g.drawImage(image, Math.floor(u * image.width), Math.floor(v * image.height), 1, 1, 0, 0, 1, 1);
  return [...g.getImageData(0, 0, 1, 1).data.subarray(0, 3)];
}
