import { beeWalk, fox, ginkgo, moth, scan, seedDrawer } from "../demo/art.ts";
import { HARD_PICTURES } from "../demo/hard.ts";
import { pictureOfTruth, TRUTHS } from "../demo/truth.ts";

/** Faults of the drawings' scans. */
const FAULTS = { blur: 1, jpeg: 85 };

/** Of the drawings whose edges are known, fine hatching and bold figures in a noisy scan, so many pixels wide. */
const KNOWN = ["hatched drawing", "noisy JPEG scan"];
const KNOWN_WIDTH = 1500;

/** Stock that they are made of, mm. */
export const STOCK = { width: 300, height: 200, thickness: 18 };

/**
 * Pictures of different characters, by name: drawings of the demo as they are scanned, pictures that are hard, and two
 * of known edges.
 */
export async function picturesOfCharacters(): Promise<[name: string, bytes: Buffer][]> {
  const drawings = { ginkgo: ginkgo(), "seed drawer": seedDrawer(), moth: moth(), "bee walk": beeWalk(), fox: fox() };
  const pictures: [string, Buffer][] = [];
  for (const [name, drawing] of Object.entries(drawings)) pictures.push([name, await scan(drawing, FAULTS)]);
  for (const { name, picture } of HARD_PICTURES) pictures.push([name, await picture()]);
  for (const t of TRUTHS) if (KNOWN.includes(t.name)) pictures.push([t.name, await pictureOfTruth(t, KNOWN_WIDTH)]);
  return pictures;
}
