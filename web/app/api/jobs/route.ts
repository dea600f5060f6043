import { createJob, listJobs } from "@/server/jobs";
import { bodyReader, respond } from "@/server/respond";

const body = bodyReader<{ document: object }>({ type: "object", required: ["document"], properties: { document: { type: "object" } }, additionalProperties: false }, 4 << 20);

export const dynamic = "force-dynamic";
export const GET = () => respond(() => listJobs());
export const POST = (request: Request) => respond(async () => createJob((await body(request)).document));
