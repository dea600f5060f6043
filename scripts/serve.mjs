// The application's server: node scripts/serve.mjs start|dev HOST PORT. Next.js answers all but what it stumbles over.
import { createServer } from "node:http";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";

const [kind, host, port] = process.argv.slice(2);
const dev = kind === "dev";
process.env.NODE_ENV = dev ? "development" : "production";
const dir = join(dirname(dirname(fileURLToPath(import.meta.url))), "web");
// Relative places in the configuration and in imports begin there.
process.chdir(dir);
const { default: next } = await import("next");
const app = next({ dev, dir, hostname: host, port: Number(port) });
await app.prepare();
const handle = app.getRequestHandler();

const server = createServer((request, response) => {
  if (isReadable(request.url)) return void handle(request, response);
  const message = "This address is not readable: it holds bytes that are no text. Open the list of jobs instead.";
  response.writeHead(400, { "Content-Type": "application/json" });
  response.end(JSON.stringify({ code: "bad-request", message }));
});

/** Next.js answers 500 to an address whose %-signs spell no text. */
function isReadable(url) {
  try {
    decodeURIComponent(url);
    return true;
  } catch {
    return false;
  }
}

server.on("error", (e) => {
  console.error(`The server cannot listen on ${host}:${port}: ${e.code ?? e.message}.`);
  process.exit(1);
});
server.listen(Number(port), host, () => console.log(`Oaken Bit is at http://${host}:${port}`));
