import { listRevisions } from "@/server/jobs";
import { respond } from "@/server/respond";

export const GET = (_: Request, { params }: { params: Promise<{ id: string }> }) => respond(async () => listRevisions((await params).id));
