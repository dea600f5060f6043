import { Problem } from "@oaken/core/problem";
import { checkJob } from "@oaken/core/job/schema";
import type { JobDocument } from "@oaken/core/job/document";
import type { Shop } from "@oaken/core/shop/shop";
import { sha256 } from "./sha256.ts";

/** A job with the files it needs, as one JSON text: what `job.json` holds. */
export interface JobFile {
  job: JobDocument;
  assets: Map<string, { name: string; bytes: Uint8Array }>;
}

/** @returns JSON text: the document's own members, and `assets` with each picture in base64 under its SHA-256 */
export function writeJobFile({ job, assets }: JobFile): string {
  const files = Object.fromEntries(
    [...assets].map(([sha, a]) => [sha, { name: a.name, base64: Buffer.from(a.bytes).toString("base64") }]),
  );
  return JSON.stringify({ ...job, assets: files }, null, 1) + "\n";
}

/**
 * @param shop what job files of older versions name without holding it
 * @throws Problem `not-a-job`, `newer-job`, `bad-job` or `asset-missing`
 */
export function readJobFile(text: string, shop: Shop): JobFile {
  let raw: unknown;
  try {
    raw = JSON.parse(text);
  } catch {
    throw new Problem(
      "not-a-job",
      "This file is not an Oaken Bit job: it is not readable JSON. Choose a job file (job.json) or a picture.",
    );
  }
  if (typeof raw !== "object" || raw === null)
    throw new Problem("not-a-job", "This file is not an Oaken Bit job. Choose a job file (job.json) or a picture.");
  const { assets: said, ...doc } = raw as { assets?: Record<string, { base64?: unknown } | null> | null };
  const job = checkJob(doc, shop);
  const files = typeof said === "object" && said !== null ? said : {};
  const assets: JobFile["assets"] = new Map();
  for (const { asset } of job.makings) {
    if (!asset) continue;
    const f = Object.hasOwn(files, asset.sha) ? files[asset.sha] : null;
    if (typeof f?.base64 !== "string")
      throw new Problem(
        "asset-missing",
        `This job file does not hold its picture ${asset.name}. Export the job again where it was made.`,
      );
    const bytes = new Uint8Array(Buffer.from(f.base64, "base64"));
    if (sha256(bytes) !== asset.sha)
      throw new Problem(
        "asset-damaged",
        `The picture ${asset.name} inside this job file is damaged. Export the job again where it was made.`,
      );
    assets.set(asset.sha, { name: asset.name, bytes });
  }
  return { job, assets };
}
