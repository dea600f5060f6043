import { beeWalk, fox, ginkgo, moth, scan, seedDrawer } from "../demo/art.ts";
import { HARD_PICTURES } from "../demo/hard.ts";

/** Faults of the drawings' scans. */
const FAULTS = { blur: 1, jpeg: 85 };

/** Stock that they are made of, mm. */
export const STOCK = { width: 300, height: 200, thickness: 18 };

/** Pictures of different characters, by name: drawings of the demo as they are scanned, and pictures that are hard. */
export async function picturesOfCharacters(): Promise<[name: string, bytes: Buffer][]> {
  const drawings = { ginkgo: ginkgo(), "seed drawer": seedDrawer(), moth: moth(), "bee walk": beeWalk(), fox: fox() };
  const pictures: [string, Buffer][] = [];
  for (const [name, drawing] of Object.entries(drawings)) pictures.push([name, await scan(drawing, FAULTS)]);
  for (const { name, picture } of HARD_PICTURES) pictures.push([name, await picture()]);
  return pictures;
}
