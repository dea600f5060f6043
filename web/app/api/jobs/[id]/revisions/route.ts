import { listRevisions } from "@/server/jobs";
import { respond } from "@/server/respond";

export const GET = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  respond(request, async () => listRevisions((await params).id));
