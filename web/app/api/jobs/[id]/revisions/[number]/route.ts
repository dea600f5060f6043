import { Problem } from "@oaken/core/problem";
import { openJob } from "@/server/jobs";
import { respond } from "@/server/respond";

/** A job as it stood at one of its revisions. */
export const GET = (request: Request, { params }: { params: Promise<{ id: string; number: string }> }) =>
  respond(request, async () => {
    const { id, number } = await params;
    if (!/^\d{1,9}$/.test(number)) throw new Problem("no-revision", "There is no such revision of this job.");
    return (await openJob(id, Number(number))).document;
  });
