import sharp from "sharp";
import type { JobDocument } from "@oaken/core/job/document";
import { begun } from "@oaken/core/testing/shop";
import { documentOf } from "@oaken/core/job/boards";

export interface Answer {
  status: number;
  body: unknown;
}

/** Asks the server; 0 where the connection broke. */
export async function ask(url: string, method = "GET", body?: unknown): Promise<Answer> {
  try {
    const raw = body instanceof Uint8Array || typeof body === "string" || body === undefined;
    const response = await fetch(url, { method, body: raw ? (body as BodyInit) : JSON.stringify(body) });
    return { status: response.status, body: await response.json().catch(() => null) };
  } catch {
    return { status: 0, body: null };
  }
}

/** A picture of one grey with a dark square; another number, another picture. */
export function picture(k: number): Promise<Buffer> {
  const [r, g, b] = [k % 64, Math.floor(k / 64) % 64, Math.floor(k / 4096) % 64];
  const square = sharp({ create: { width: 24, height: 20, channels: 3, background: { r, g, b } } });
  return square.extend({ top: 14, bottom: 14, left: 20, right: 20, background: "#fff" }).png().toBuffer();
}

/** A new job of a small sign, on the server. @returns its id and document */
export async function newJob(url: string, k: number): Promise<{ id: string; document: JobDocument }> {
  const asset = await ask(`${url}/api/assets?name=square.png`, "POST", await picture(k));
  const document = documentOf(
    begun("sign", asset.body as { sha: string; name: string; width: number; height: number }),
  );
  const made = await ask(`${url}/api/jobs`, "POST", { document });
  return { id: (made.body as { id: string }).id, document };
}

export const save = (url: string, id: string, base: number, document: JobDocument): Promise<Answer> =>
  ask(`${url}/api/jobs/${id}`, "PUT", { base, document, summary: "bench" });
