import { randomBytes } from "node:crypto";
import { open, rename, unlink } from "node:fs/promises";
import { Problem } from "@oaken/core/problem";

/**
 * Writes a file whole or not at all: under a passing name, flushed to the disk, then renamed.
 * @throws Problem `disk-full` or `cannot-write`
 */
export async function writeWhole(path: string, bytes: Uint8Array): Promise<void> {
  const passing = `${path}.${randomBytes(6).toString("hex")}.part`;
  try {
    const file = await open(passing, "w");
    try {
      await file.writeFile(bytes);
      await file.sync();
    } finally {
      await file.close();
    }
    await rename(passing, path);
  } catch (e) {
    await unlink(passing).catch(() => {});
    throw storageProblem(e);
  }
}

/** A sentence for a failing disk; other errors pass through. */
export function storageProblem(e: unknown): unknown {
  const text = `${(e as NodeJS.ErrnoException)?.code ?? ""} ${(e as Error)?.message ?? ""}`;
  if (/ENOSPC|SQLITE_FULL|EDQUOT|disk is full/i.test(text)) return new Problem("disk-full", "The disk that holds Oaken Bit's data is full, so this was not saved. Make room on it and try again; nothing saved before is lost.");
  if (/EACCES|EPERM|EROFS|SQLITE_READONLY|readonly database/i.test(text)) return new Problem("cannot-write", "Oaken Bit may not write to its data folder, so this was not saved. Check the folder's permissions.");
  return e;
}
