import type { Raster } from "@oaken/core/picture/raster";
import { warmUp } from "@oaken/core/outline/warm";
import { Problem } from "@oaken/core/problem";

const held = new Map<string, Promise<Raster>>();
/** Pictures a worker keeps decoded. */
const KEEP = 2;

/** How often it is said that a picture is still awaited, ms. */
const STILL_MS = 2000;

/**
 * A picture's pixels, fetched from the server once.
 * @param still called now and then while they are awaited: the server may have others to decode first
 */
export async function pixels(sha: string, still: () => void): Promise<Raster> {
  const beat = setInterval(still, STILL_MS);
  try {
    return await once(sha);
  } finally {
    clearInterval(beat);
  }
}

function once(sha: string): Promise<Raster> {
  let p = held.get(sha);
  if (!p) {
    p = load(sha);
    p.catch(() => held.delete(sha));
    held.set(sha, p);
    while (held.size > KEEP) held.delete(held.keys().next().value!);
  }
  return p;
}

async function load(sha: string): Promise<Raster> {
  const asked = fetch(`/api/assets/${sha}/pixels`);
  // While the picture is on its way.
  warmUp();
  const response = await asked;
  if (!response.ok) {
    const said = (await response.json().catch(() => null)) as { message?: string } | null;
    throw new Problem("no-asset", said?.message ?? "The picture could not be loaded.");
  }
  const buffer = await response.arrayBuffer();
  const [width, height, bytes] = new Uint32Array(buffer, 0, 3);
  return { width, height, data: bytes === 2 ? new Uint16Array(buffer, 12) : new Uint8Array(buffer, 12) };
}

/** A drawing's text, fetched from the server. */
export const drawing = async (sha: string): Promise<string> => (await own(sha, "drawing")).text();

/** A solid's file, fetched from the server. */
export const solid = async (sha: string): Promise<Uint8Array> =>
  new Uint8Array(await (await own(sha, "solid")).arrayBuffer());

async function own(sha: string, what: "drawing" | "solid"): Promise<Response> {
  const response = await fetch(`/api/assets/${sha}/${what}`);
  if (response.ok) return response;
  const said = (await response.json().catch(() => null)) as { message?: string } | null;
  throw new Problem("no-asset", said?.message ?? `The ${what} could not be loaded.`);
}
