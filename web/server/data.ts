import { mkdirSync } from "node:fs";
import { join, resolve } from "node:path";

/** The one folder that this server writes to: OAKEN_DATA, or `data` where it was started. */
export function dataFolder(): string {
  const dir = resolve(/* turbopackIgnore: true */ process.env.OAKEN_DATA ?? "data");
  mkdirSync(join(dir, "assets"), { recursive: true });
  mkdirSync(join(dir, "thumbs"), { recursive: true });
  return dir;
}
