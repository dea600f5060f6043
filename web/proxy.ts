import { type NextRequest, NextResponse } from "next/server";

/** Host names this server answers to: its own machine only, unless OAKEN_HOSTS names more (comma-separated). */
const HOSTS = new Set(["127.0.0.1", "localhost", "[::1]", ...(process.env.OAKEN_HOSTS ?? "").split(",").filter(Boolean)]);

/**
 * Refuses requests that name another host (DNS rebinding) and changes asked for by another site's page (cross-site
 * request forgery): a browser always names the page's origin on such requests.
 */
export function proxy(request: NextRequest): NextResponse {
  const host = request.headers.get("host") ?? "";
  const refuse = (message: string) => NextResponse.json({ code: "refused", message }, { status: 403 });
  if (!HOSTS.has(host.replace(/:\d+$/, ""))) return refuse("This server answers only on its own address. Open it as http://127.0.0.1.");
  const origin = request.headers.get("origin");
  if (origin !== null && origin !== `http://${host}` && origin !== `https://${host}`) return refuse("This request comes from another site and was refused. Open Oaken Bit itself.");
  const site = request.headers.get("sec-fetch-site");
  if (request.method !== "GET" && request.method !== "HEAD" && site !== null && site !== "same-origin" && site !== "none") return refuse("This request comes from another site and was refused. Open Oaken Bit itself.");
  return NextResponse.next();
}
