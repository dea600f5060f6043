import { fileName } from "@oaken/core/output/gcode/writer";
import { exportJob } from "@/server/jobs";
import { respond } from "@/server/respond";

export const GET = (_: Request, { params }: { params: Promise<{ id: string }> }) =>
  respond(async () => {
    const { name, text } = await exportJob((await params).id);
    return new Response(text, { headers: { "Content-Type": "application/json", "Content-Disposition": `attachment; filename="${fileName(name)}.job.json"` } });
  });
