/** Host names this server answers to: its own machine, unless OAKEN_HOSTS names more (comma-separated). */
const HOSTS = new Set([
  "127.0.0.1",
  "localhost",
  "[::1]",
  ...(process.env.OAKEN_HOSTS ?? "").split(",").filter(Boolean),
]);
const FOREIGN = "This request comes from another site and was refused. Open Oaken Bit itself.";

/**
 * Why a request is refused, or null: one that names another host (DNS rebinding), or a change asked for by another
 * site's page (cross-site request forgery): a browser always names the page's origin on those.
 */
export function refusal(method: string, headers: Headers): string | null {
  const host = headers.get("host") ?? "";
  if (!HOSTS.has(host.replace(/:\d+$/, "")))
    return "This server answers only on its own address. Open it as http://127.0.0.1.";
  const origin = headers.get("origin");
  if (origin !== null && origin !== `http://${host}` && origin !== `https://${host}`) return FOREIGN;
  const reads = method === "GET" || method === "HEAD";
  const site = headers.get("sec-fetch-site");
  if (!reads && site !== null && site !== "same-origin" && site !== "none") return FOREIGN;
  return null;
}
