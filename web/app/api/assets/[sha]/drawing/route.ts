import { drawingText } from "@/server/assets";
import { respond } from "@/server/respond";

/** A drawing's own text, for the workers: as text, so that no browser takes it for a page. */
export const GET = (request: Request, { params }: { params: Promise<{ sha: string }> }) =>
  respond(request, async () => {
    const text = await drawingText((await params).sha);
    const headers = {
      "Content-Type": "text/plain; charset=utf-8",
      "Cache-Control": "private, max-age=3600, immutable",
    };
    return new Response(text, { headers });
  });
