import { mkdtemp, writeFile } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join } from "node:path";
import sharp from "sharp";
import { make } from "../make.ts";

export const art =
  `<svg xmlns="http://www.w3.org/2000/svg" width="640" height="420"><rect width="640" height="420" fill="#fff"/>` +
  `<path d="M120 360L320 60L520 360Z" fill="#111"/><circle cx="320" cy="260" r="46" fill="#fff"/></svg>`;

/** A triangle with a round hole, its edges a little soft. */
export const picture = () => sharp(Buffer.from(art)).blur(0.7);

/** A folder with that picture as art.png, and `oaken make` run with what it said. */
export async function folderWithArt() {
  const dir = await mkdtemp(join(tmpdir(), "oaken-"));
  const file = (name: string) => join(dir, name);
  await writeFile(file("art.png"), await picture().png().toBuffer());
  const run = async (...args: string[]) => {
    const said: string[] = [];
    const code = await make(args, (l) => said.push(l));
    return { code, said: said.join("\n") };
  };
  return { dir, file, run };
}
