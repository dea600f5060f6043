import { randomBytes } from "node:crypto";
import { open, rename, unlink } from "node:fs/promises";
import { Problem } from "@oaken/core/problem";
import { PASSING } from "./data.ts";

/**
 * Writes a file whole or not at all: under a passing name, flushed to the disk, then renamed.
 * @throws Problem `disk-full` or `cannot-write`
 */
export async function writeWhole(path: string, bytes: Uint8Array): Promise<void> {
  const passing = passingName(path);
  await writePassing(passing, [bytes]);
  try {
    await rename(passing, path);
  } catch (e) {
    await unlink(passing).catch(() => {});
    throw storageProblem(e);
  }
}

/** Writes a file under a passing name and flushes it to the disk; nothing is left of it where that fails. */
export async function writePassing(
  passing: string,
  chunks: Iterable<Uint8Array> | AsyncIterable<Uint8Array>,
  each: (chunk: Uint8Array) => void = () => {},
): Promise<void> {
  try {
    const file = await open(passing, "w");
    try {
      for await (const chunk of chunks) {
        each(chunk);
        await file.write(chunk);
      }
      await file.sync();
    } finally {
      await file.close();
    }
  } catch (e) {
    await unlink(passing).catch(() => {});
    throw storageProblem(e);
  }
}

/** Under which name a file is written until it is whole. */
export const passingName = (path: string): string =>
  `${path}.${process.pid}.${randomBytes(6).toString("hex")}${PASSING}`;

/** What failing storage says, the code of its Problem and its sentence. Each says only what is true of it. */
const STORAGE: readonly [pattern: RegExp, code: string, message: string][] = [
  [
    /ENOSPC|SQLITE_FULL|EDQUOT|disk is full/i,
    "disk-full",
    "The disk that holds Oaken Bit's data is full, so this was not saved. Make room on it and try again; nothing " +
      "saved before is lost.",
  ],
  [
    /EACCES|EPERM|EROFS|SQLITE_READONLY|readonly database/i,
    "cannot-write",
    "Oaken Bit may not write to its data folder, so this was not saved. Check the folder's permissions.",
  ],
  [
    /SQLITE_CORRUPT|SQLITE_NOTADB|malformed|not a database/i,
    "damaged-data",
    "The database (oaken.sqlite in the data folder) is damaged and cannot be read. Stop Oaken Bit and put a copy of " +
      "the file in its place; or move it away, and Oaken Bit begins with an empty list. Pictures in the folder stay.",
  ],
  [
    /SQLITE_CANTOPEN|unable to open database/i,
    "no-data-folder",
    "The database in the data folder cannot be opened. Check that the folder is still there and may be written to.",
  ],
  [
    /SQLITE_BUSY|database is locked/i,
    "busy-data",
    "Another program has held the database for more than five seconds, so this was not saved. End it, or try again.",
  ],
];

/** A sentence for failing storage; other errors pass through. */
export function storageProblem(e: unknown): unknown {
  if (e instanceof Problem) return e;
  const { code, message } = (e ?? {}) as NodeJS.ErrnoException;
  const text = `${code ?? ""} ${message ?? ""}`;
  const known = STORAGE.find(([pattern]) => pattern.test(text));
  return known ? new Problem(known[1], known[2]) : e;
}
