import { type ChildProcess, spawn } from "node:child_process";
import { createServer } from "node:net";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";

const root = dirname(dirname(fileURLToPath(import.meta.url)));

/** A free port of this machine. */
function freePort(): Promise<number> {
  return new Promise((done, failed) => {
    const s = createServer();
    s.on("error", failed);
    s.listen(0, "127.0.0.1", () => {
      const { port } = s.address() as { port: number };
      s.close(() => done(port));
    });
  });
}

export interface Running {
  url: string;
  child: ChildProcess;
  kill(signal: NodeJS.Signals): Promise<void>;
}

/** Starts the built application on a data folder and waits until it answers. */
export async function startServer(data: string, port?: number): Promise<Running> {
  port ??= await freePort();
  const child = spawn(process.execPath, [join(root, "scripts", "serve.mjs"), "start", "127.0.0.1", String(port)], {
    env: { ...process.env, OAKEN_DATA: data, NEXT_TELEMETRY_DISABLED: "1" },
    stdio: ["ignore", "ignore", "inherit"],
  });
  const url = `http://127.0.0.1:${port}`;
  const until = Date.now() + 60_000;
  for (;;) {
    try {
      if ((await fetch(`${url}/api/jobs`)).ok) break;
    } catch {
      if (Date.now() > until || child.exitCode !== null) throw new Error("The server did not start.");
    }
    await new Promise((r) => setTimeout(r, 150));
  }
  return {
    url,
    child,
    kill: (signal) =>
      new Promise((done) => {
        if (child.exitCode !== null) return done();
        child.on("exit", () => done());
        child.kill(signal);
      }),
  };
}
