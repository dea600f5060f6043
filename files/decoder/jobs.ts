// The part of the decoder that takes job files apart. A bundle of its own: it knows every making and cut, which takes
// a quarter of a second to load, and pictures need none of it.
import { readFile, writeFile } from "node:fs/promises";
import { join } from "node:path";
import { readJobFile } from "../jobfile.ts";
import type { Answer, Ask } from "./protocol.ts";

/** Writes the pictures of a job file into a folder, each under its SHA-256. @returns the document and their names */
export async function unpacked({ path, folder, shop }: Ask & { do: "job" }): Promise<Answer & { is: "job" }> {
  const { job, assets } = readJobFile(await readFile(path, "utf8"), shop);
  const pictures: { sha: string; name: string }[] = [];
  for (const [sha, { name, bytes }] of assets) {
    // On the disk before the job that needs it is saved.
    await writeFile(join(folder, sha), bytes, { flush: true });
    pictures.push({ sha, name });
  }
  return { is: "job", document: job, pictures, bytes: 0 };
}
