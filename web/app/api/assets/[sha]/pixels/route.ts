import { raster } from "@/server/assets";
import { respond } from "@/server/respond";

/** Decoded pixels for the workers: width, height, bytes a sample as 32-bit numbers, then RGBA. */
export const GET = (_: Request, { params }: { params: Promise<{ sha: string }> }) =>
  respond(async () => {
    const r = await raster((await params).sha);
    const head = Uint32Array.of(r.width, r.height, r.data.BYTES_PER_ELEMENT);
    const body = Buffer.concat([Buffer.from(head.buffer), Buffer.from(r.data.buffer, r.data.byteOffset, r.data.byteLength)]);
    return new Response(body, { headers: { "Content-Type": "application/octet-stream", "Cache-Control": "private, max-age=3600, immutable" } });
  });
