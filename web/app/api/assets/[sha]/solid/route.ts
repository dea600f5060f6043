import { solidBytes } from "@/server/assets";
import { respond } from "@/server/respond";

/** A solid's file as it was sent, for the workers. */
export const GET = (request: Request, { params }: { params: Promise<{ sha: string }> }) =>
  respond(request, async () => {
    const bytes = await solidBytes((await params).sha);
    const headers = { "Content-Type": "application/octet-stream", "Cache-Control": "private, max-age=3600, immutable" };
    return new Response(new Uint8Array(bytes), { headers });
  });
