import { fileName } from "@oaken/core/output/gcode/names";
import { exportJob } from "@/server/jobs";
import { respond } from "@/server/respond";

export const GET = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  respond(request, async () => {
    const { name, text } = await exportJob((await params).id);
    const headers = {
      "Content-Type": "application/json",
      "Content-Disposition": `attachment; filename="${fileName(name)}.job.json"`,
    };
    return new Response(text, { headers });
  });
