import { mkdtemp, rm } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { startServer } from "../../e2e/server.ts";
import { benchHostile } from "./hostile.ts";
import { benchSaves } from "./saves.ts";

/** The built application under load, on a data folder and a port of its own. */
export async function benchServer(): Promise<void> {
  const folder = await mkdtemp(join(tmpdir(), "oaken-server-"));
  const server = await startServer(folder);
  try {
    await benchSaves(server.url, folder);
    await benchHostile(server.url, server.child.pid!);
  } finally {
    await server.kill("SIGTERM");
    await rm(folder, { recursive: true });
  }
}
