import { createHash } from "node:crypto";
import { readFile, rename, stat, unlink } from "node:fs/promises";
import { join } from "node:path";
import type { Raster } from "@oaken/core/picture/raster";
import type { JobDocument } from "@oaken/core/job/document";
import { Problem } from "@oaken/core/problem";
import { decodeFile } from "@oaken/files/decode";
import { MAX_BYTES } from "@oaken/files/decoder/kinds";
import { drawingOf } from "@oaken/files/drawing";
import { isSolidName, solidOf } from "@oaken/files/solid";
import { sha256 } from "@oaken/files/sha256";
import { dataFolder, PICTURES } from "./data.ts";
import { AssetRow, store, write } from "./db.ts";
import { passingName, storageProblem, writePassing } from "./files.ts";
import { limited } from "./respond.ts";

export interface Asset {
  sha: string;
  name: string;
  width: number;
  height: number;
}

const gone = new Problem(
  "no-asset",
  "This picture is not in the data folder any more. Import the job file again, or replace the picture.",
);

const isContent = (sha: string): boolean => /^[0-9a-f]{64}$/.test(sha);

/** A file's place; only a SHA-256 gets one, so that no request can name a path. */
function pathOf(sha: string): string {
  if (!isContent(sha)) throw new Problem("no-asset", "There is no such picture.");
  return join(dataFolder(), PICTURES, sha);
}

/** Checks and keeps a picture; the same content is stored once. */
export async function keepPicture(bytes: Uint8Array, name: string): Promise<Asset> {
  await store();
  const passing = passingName(join(dataFolder(), PICTURES, "picture"));
  await writePassing(passing, [bytes]);
  return keepFile(passing, sha256(bytes), name);
}

/** The same from a request's body, which goes to the disk as it arrives. */
export async function keepUpload(request: Request, name: string): Promise<Asset> {
  await store();
  const passing = passingName(join(dataFolder(), PICTURES, "picture"));
  const hash = createHash("sha256");
  await writePassing(passing, limited(request, MAX_BYTES), (chunk) => hash.update(chunk));
  return keepFile(passing, hash.digest("hex"), name);
}

/**
 * Takes a file that was written under a passing name as a picture. One that is stored already is replaced: it may have
 * been cut short there.
 */
export async function keepFile(passing: string, sha: string, name: string): Promise<Asset> {
  const clean =
    name
      .replace(/[\\/]/g, " ")
      .replace(/[\x00-\x1f]/g, "")
      .slice(0, 120) || "picture";
  let picture: Raster | null;
  try {
    picture = isSolidName(clean) ? null : await decodeFile(passing, clean);
    if (!picture) solidOf(await readFile(passing));
    await rename(passing, pathOf(sha));
  } catch (e) {
    await unlink(passing).catch(() => {});
    throw storageProblem(e);
  }
  // How large a solid is, is found out when it is read.
  const { width, height } = picture ?? { width: 1, height: 1 };
  const { size } = await stat(pathOf(sha));
  await write((transaction) => AssetRow.upsert({ sha, name: clean, width, height, bytes: size }, { transaction }));
  if (picture) remember(sha, picture);
  return { sha, name: clean, width, height };
}

export async function assetBytes(sha: string): Promise<Uint8Array> {
  return readFile(pathOf(sha)).catch(() => {
    throw gone;
  });
}

/** The text of a drawing. @throws Problem `not-a-drawing` for a picture of pixels */
export async function drawingText(sha: string): Promise<string> {
  const { name } = await assetInfo(sha);
  return drawingOf(await assetBytes(sha), name);
}

/** The file of a solid. @throws Problem `bad-solid` for anything else */
export async function solidBytes(sha: string): Promise<Uint8Array> {
  const { name } = await assetInfo(sha);
  // It was read once, before it was kept.
  if (!isSolidName(name)) throw new Problem("bad-solid", `${name} is not a solid. Add an STL file.`);
  return assetBytes(sha);
}

export async function assetInfo(sha: string): Promise<Asset> {
  await store();
  const row = isContent(sha) ? await AssetRow.findByPk(sha) : null;
  if (!row) throw new Problem("no-asset", "There is no such picture.");
  return { sha, name: row.name, width: row.width, height: row.height };
}

/** The last few decoded pictures, so that the workers' requests decode nothing twice. */
const decoded = new Map<string, Raster>();
const KEEP = 2;

function remember(sha: string, raster: Raster): void {
  decoded.delete(sha);
  decoded.set(sha, raster);
  while (decoded.size > KEEP) decoded.delete(decoded.keys().next().value!);
}

export async function raster(sha: string): Promise<Raster> {
  const known = decoded.get(sha);
  if (known) return known;
  const { name } = await assetInfo(sha);
  if (!(await stat(pathOf(sha)).catch(() => null))) throw gone;
  const r = await decodeFile(pathOf(sha), name);
  remember(sha, r);
  return r;
}

/** Pictures known to be in the database: they never go from it. */
const known = new Set<string>();
export const picturesOf = (job: JobDocument): string[] => job.makings.flatMap((n) => n.asset?.sha ?? []);

/**
 * Refuses pictures that were never given to this server. Those that the job had before may be gone by now: its other
 * settings can still be saved.
 */
export async function checkPictures(
  job: JobDocument,
  before: () => readonly string[] | Promise<readonly string[]>,
): Promise<void> {
  await store();
  for (const { asset } of job.makings) {
    if (!asset || known.has(asset.sha)) continue;
    if (await AssetRow.findByPk(asset.sha)) known.add(asset.sha);
    else if (!(await before()).includes(asset.sha))
      throw new Problem("no-asset", `This job's picture ${asset.name} is not here. Add the picture itself first.`);
  }
}
