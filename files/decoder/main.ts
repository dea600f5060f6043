// The decoder's process: reads what strangers have made, and may be killed for it. See `../decode.ts`.
import { readFile } from "node:fs/promises";
import sharp from "sharp";
import { Problem } from "@oaken/core/problem";
import { decodeHere } from "./decode.ts";
import type * as Jobs from "./jobs.ts";
import { type Answer, type Ask, headLine, Unpacker } from "./protocol.ts";

/** `jobs.ts`, bundled beside this bundle: see `scripts/bundle.mjs`. */
const JOBS = "./decoder-jobs.mjs";

async function answer(ask: Ask, body: Buffer): Promise<[Answer, Uint8Array | null]> {
  switch (ask.do) {
    case "picture": {
      const { width, height, data } = await decodeHere(ask.path ? await readFile(ask.path) : body, ask.name);
      const bytes = new Uint8Array(data.buffer, data.byteOffset, data.byteLength);
      return [{ is: "picture", width, height, wide: data instanceof Uint16Array, bytes: bytes.length }, bytes];
    }
    case "thumb":
      await checkThumb(body, ask.side);
      return [{ is: "fine", bytes: 0 }, null];
    case "job": {
      const { unpacked } = (await import(JOBS)) as typeof Jobs;
      return [await unpacked(ask), null];
    }
  }
}

async function checkThumb(png: Buffer, side: number): Promise<void> {
  const bad = new Problem("bad-request", `The proof's picture must be a PNG of at most ${side} pixels a side.`);
  try {
    const image = sharp(png, { failOn: "truncated", limitInputPixels: side * side });
    const { format, width, height } = await image.metadata();
    if (format !== "png" || width > side || height > side) throw bad;
    await image.stats();
  } catch {
    throw bad;
  }
}

function problemOf(e: unknown): Answer {
  if (e instanceof Problem) return { is: "problem", code: e.code, message: e.message, bytes: 0 };
  return { is: "problem", code: "broken-file", message: `It cannot be read: ${(e as Error).message}`, bytes: 0 };
}

let busy = Promise.resolve();
const unpacker = new Unpacker<Ask>((ask, body) => {
  busy = busy.then(async () => {
    const [head, bytes] = await answer(ask, body).catch((e): [Answer, null] => [problemOf(e), null]);
    process.stdout.write(headLine(head));
    if (bytes) process.stdout.write(bytes);
  });
});
process.stdin.on("data", (chunk: Buffer) => unpacker.take(chunk));
process.stdin.on("end", () => void busy.then(() => process.exit(0)));
