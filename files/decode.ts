import { open } from "node:fs/promises";
import type { Raster } from "@oaken/core/picture/raster";
import { Problem } from "@oaken/core/problem";
import type { Shop } from "@oaken/core/shop/shop";
import { KIND_BYTES, pictureKind } from "./decoder/kinds.ts";
import { type Limits, Overrun, within } from "./decoder/process.ts";
import type { Ask } from "./decoder/protocol.ts";

/** What one file may take to be read before it is given up. */
const LIMITS: Limits = { seconds: 10, bytes: 1 << 30 };

/**
 * Decodes a picture to upright sRGB RGBA, 8 bit or 16 where the file has 16, in a process of its own that is killed
 * when it takes more than 10 s or 1 GB.
 * @throws Problem naming the file and what is wrong with it
 */
export async function decodePicture(bytes: Uint8Array, name: string): Promise<Raster> {
  pictureKind(bytes, name, bytes.length);
  return decoded({ do: "picture", name, bytes: bytes.length }, bytes);
}

/** The same from a file, which this process does not read. */
export async function decodeFile(path: string, name: string): Promise<Raster> {
  const file = await open(path);
  try {
    const { buffer, bytesRead } = await file.read(Buffer.alloc(KIND_BYTES), 0, KIND_BYTES, 0);
    pictureKind(buffer.subarray(0, bytesRead), name, (await file.stat()).size);
  } finally {
    await file.close();
  }
  return decoded({ do: "picture", name, path, bytes: 0 });
}

async function decoded(ask: Ask & { do: "picture" }, bytes?: Uint8Array): Promise<Raster> {
  const { head, body } = await within(LIMITS, ask, bytes).catch((e) => {
    throw overrun(e, ask.name);
  });
  if (head.is !== "picture") throw new Error(`The decoder answered ${head.is}.`);
  const data = head.wide ? new Uint16Array(body.buffer, 0, body.length / 2) : new Uint8Array(body.buffer);
  return { width: head.width, height: head.height, data };
}

/** @throws Problem `bad-request` unless the bytes are a whole PNG of at most `side` pixels either way */
export async function checkThumb(bytes: Uint8Array, side: number): Promise<void> {
  await within(LIMITS, { do: "thumb", side, bytes: bytes.length }, bytes).catch((e) => {
    throw overrun(e, "The proof's picture");
  });
}

/**
 * Takes a job file apart: its pictures are written into a folder, each under its SHA-256.
 * @param shop what job files of older versions name without holding it
 * @returns the document, checked, and the pictures that it has
 */
export async function unpackJob(
  path: string,
  folder: string,
  shop: Shop,
): Promise<{ document: unknown; pictures: { sha: string; name: string }[] }> {
  const { head } = await within(LIMITS, { do: "job", path, folder, shop, bytes: 0 }).catch((e) => {
    throw overrun(e, "This job file");
  });
  if (head.is !== "job") throw new Error(`The decoder answered ${head.is}.`);
  return head;
}

function overrun(e: unknown, name: string): unknown {
  if (!(e instanceof Overrun)) return e;
  const what = e.of === "time" ? `more than ${LIMITS.seconds} s` : `more than ${LIMITS.bytes / 2 ** 30} GB of memory`;
  const why = `${name} takes ${what} to read, so it was given up.`;
  return new Problem("too-costly", `${why} Save it smaller, or a drawing as a picture (PNG), and try again.`);
}
