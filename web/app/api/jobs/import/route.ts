import { importJob } from "@/server/jobs";
import { respond } from "@/server/respond";

export const POST = (request: Request) => respond(request, () => importJob(request));
