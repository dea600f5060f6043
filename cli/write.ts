import { randomBytes } from "node:crypto";
import { mkdir, readFile, rename, unlink, writeFile } from "node:fs/promises";
import { join } from "node:path";
import { Problem } from "@oaken/core/problem";

/** What the last run wrote into a folder and this one may not write again: its report says. */
async function writtenBefore(dir: string): Promise<string[]> {
  try {
    const report = JSON.parse(await readFile(join(dir, "report.json"), "utf8"));
    const programs: unknown[] = (report.cuts ?? []).map((c: { program?: unknown }) => c.program);
    const names: unknown[] = [...(report.files ?? []), ...programs];
    // Only names in this very folder: the report may have been written by anyone.
    return names.filter((n): n is string => typeof n === "string" && /^[^/\\]+\.[a-z]+$/.test(n));
  } catch {
    return [];
  }
}

/** Writes every file under a passing name first, then renames: a reader never sees half a program. Old programs go. */
export async function writeAll(dir: string, files: { name: string; bytes: Buffer }[]): Promise<void> {
  const suffix = `.${randomBytes(4).toString("hex")}.part`;
  const written: string[] = [];
  try {
    await mkdir(dir, { recursive: true });
    const before = await writtenBefore(dir);
    for (const f of files) {
      const path = join(dir, f.name + suffix);
      written.push(path);
      await writeFile(path, f.bytes);
    }
    const keep = new Set(files.map((f) => f.name));
    for (const old of before) if (!keep.has(old)) await unlink(join(dir, old)).catch(() => {});
    for (const f of files) await rename(join(dir, f.name + suffix), join(dir, f.name));
  } catch (e) {
    for (const path of written) await unlink(path).catch(() => {});
    const code = (e as NodeJS.ErrnoException).code;
    const why =
      code === "ENOSPC"
        ? "the disk is full"
        : code === "EACCES" || code === "EPERM" || code === "EROFS"
          ? "writing there is not allowed"
          : code === "ENOTDIR" || code === "EEXIST"
            ? "it is not a folder"
            : String(code ?? (e as Error).message);
    throw new Problem("cannot-write", `${dir} could not be written: ${why}. Nothing half-written was left.`);
  }
}
