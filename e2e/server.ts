import { type ChildProcess, spawn } from "node:child_process";
import { createServer } from "node:net";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";

const root = dirname(dirname(fileURLToPath(import.meta.url)));

/** A free port of this machine. */
export function freePort(): Promise<number> {
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

/** Starts the built application, and does not wait for it. */
export function launch(data: string, port: number): { child: ChildProcess; ended: Promise<void> } {
  const child = spawn(process.execPath, [join(root, "scripts", "serve.mjs"), "start", "127.0.0.1", String(port)], {
    env: { ...process.env, OAKEN_DATA: data, NEXT_TELEMETRY_DISABLED: "1" },
    stdio: ["ignore", "ignore", "inherit"],
  });
  return { child, ended: new Promise((done) => child.on("exit", () => done())) };
}

/** Starts the built application on a data folder and waits until it answers. */
export async function startServer(data: string, port?: number): Promise<Running> {
  port ??= await freePort();
  const { child, ended } = launch(data, port);
  const url = `http://127.0.0.1:${port}`;
  const until = Date.now() + 60_000;
  for (;;) {
    const answer = await fetch(`${url}/api/jobs`).catch(() => null);
    if (answer?.ok) break;
    if (answer || Date.now() > until || child.exitCode !== null) {
      child.kill("SIGKILL");
      throw new Error(`The server did not start: ${answer ? await answer.text() : "no answer"}`);
    }
    await new Promise((r) => setTimeout(r, 50));
  }
  const kill = (signal: NodeJS.Signals): Promise<void> => {
    child.kill(signal);
    return ended;
  };
  return { url, child, kill };
}
