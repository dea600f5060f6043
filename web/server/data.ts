import { mkdirSync } from "node:fs";
import { readdir, rm } from "node:fs/promises";
import { join, resolve } from "node:path";
import { Problem } from "@oaken/core/problem";

export const PICTURES = "assets";
export const THUMBS = "thumbs";
/** job files on their way in */
export const INCOMING = "incoming";
/** Ends of files that are still being written; before it stand the writing process's number and a random word. */
export const PASSING = ".part";

/**
 * The one folder that this server writes to: OAKEN_DATA, or `data` where it was started.
 * @throws Problem `no-data-folder`
 */
export function dataFolder(): string {
  const dir = resolve(/* turbopackIgnore: true */ process.env.OAKEN_DATA ?? "data");
  try {
    for (const part of [PICTURES, THUMBS, INCOMING])
      mkdirSync(join(/* turbopackIgnore: true */ dir, part), { recursive: true });
  } catch (e) {
    throw new Problem(
      "no-data-folder",
      `The data folder ${dir} cannot be made or used ` +
        `(${(e as NodeJS.ErrnoException).code ?? "unknown reason"}). Name ` +
        "another one in OAKEN_DATA, or mend its place and permissions.",
    );
  }
  return dir;
}

/** Takes away what processes that are no more were writing when they ended. */
export async function clearPassing(): Promise<void> {
  for (const part of [PICTURES, THUMBS, INCOMING]) {
    const folder = join(/* turbopackIgnore: true */ dataFolder(), part);
    for (const name of await readdir(/* turbopackIgnore: true */ folder)) {
      if (!name.endsWith(PASSING)) continue;
      const writer = /\.(\d+)\.[0-9a-f]+\.part$/.exec(name)?.[1];
      const left = !writer || !isRunning(Number(writer));
      if (left) await rm(join(/* turbopackIgnore: true */ folder, name), { recursive: true }).catch(() => {});
    }
  }
}

function isRunning(pid: number): boolean {
  try {
    process.kill(pid, 0);
    return true;
  } catch (e) {
    return (e as NodeJS.ErrnoException).code === "EPERM";
  }
}
