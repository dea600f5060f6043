import { randomBytes } from "node:crypto";
import { type NextRequest, NextResponse } from "next/server";
import { refusal } from "@/server/gate";

/**
 * The gate before every page: foreign requests are refused, and each page says what it may load and run. Routes under
 * /api ask the gate themselves (`respond`): a body that passes through here would be held in memory first.
 */
export function proxy(request: NextRequest): NextResponse {
  const message = refusal(request.method, request.headers);
  if (message) return NextResponse.json({ code: "refused", message }, { status: 403 });
  const policy = policyOf(randomBytes(16).toString("base64"));
  // Next.js reads the page's own word for its scripts from the request.
  const headers = new Headers(request.headers);
  headers.set("Content-Security-Policy", policy);
  const response = NextResponse.next({ request: { headers } });
  response.headers.set("Content-Security-Policy", policy);
  return response;
}

export const config = { matcher: ["/((?!api/|_next/static/|_next/image|icon.svg).*)"] };

/** @param nonce a word that only this page's own scripts know */
function policyOf(nonce: string): string {
  // In development React and the bundler run code from strings.
  const dev = process.env.NODE_ENV === "development" ? " 'unsafe-eval'" : "";
  return [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'wasm-unsafe-eval'${dev}`,
    // Styles that components set on their own elements.
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' blob: data:",
    "worker-src 'self' blob:",
    "connect-src 'self'",
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'none'",
    "frame-ancestors 'none'",
  ].join("; ");
}
