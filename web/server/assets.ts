import { readFile, stat } from "node:fs/promises";
import { join } from "node:path";
import { decodePicture, sha256 } from "@oaken/files/decode";
import type { Raster } from "@oaken/core/picture/raster";
import { Problem } from "@oaken/core/problem";
import { dataFolder } from "./data.ts";
import { AssetRow, store } from "./db.ts";
import { storageProblem, writeWhole } from "./files.ts";

export interface Asset {
  sha: string;
  name: string;
  width: number;
  height: number;
}

/** A file's place; only a SHA-256 gets one, so that no request can name a path. */
function pathOf(sha: string): string {
  if (!/^[0-9a-f]{64}$/.test(sha)) throw new Problem("no-asset", "There is no such picture.");
  return join(dataFolder(), "assets", sha);
}

/** Checks and keeps a picture; the same content is stored once. */
export async function keepPicture(bytes: Uint8Array, name: string): Promise<Asset> {
  await store();
  const clean = name.replace(/[\\/]/g, " ").replace(/[\x00-\x1f]/g, "").slice(0, 120) || "picture";
  const raster = await decodePicture(bytes, clean);
  const sha = sha256(bytes);
  const path = pathOf(sha);
  if (!(await stat(path).catch(() => null))) await writeWhole(path, bytes);
  try {
    await AssetRow.upsert({ sha, name: clean, width: raster.width, height: raster.height, bytes: bytes.length });
  } catch (e) {
    throw storageProblem(e);
  }
  remember(sha, raster);
  return { sha, name: clean, width: raster.width, height: raster.height };
}

export async function assetBytes(sha: string): Promise<Uint8Array> {
  return readFile(pathOf(sha)).catch(() => {
    throw new Problem("no-asset", "This picture is not in the data folder any more. Import the job file again, or replace the picture.");
  });
}

export async function assetInfo(sha: string): Promise<Asset> {
  await store();
  const row = await AssetRow.findByPk(sha);
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
  const r = await decodePicture(await assetBytes(sha), (await assetInfo(sha)).name);
  remember(sha, r);
  return r;
}
