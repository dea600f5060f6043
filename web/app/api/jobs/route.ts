import { createJob, listJobs } from "@/server/jobs";
import { bodyReader, MOST_DOCUMENT, respond } from "@/server/respond";

const schema = {
  type: "object",
  required: ["document"],
  properties: { document: { type: "object" } },
  additionalProperties: false,
};
const body = bodyReader<{ document: object }>(schema, MOST_DOCUMENT);

export const dynamic = "force-dynamic";
export const GET = (request: Request) => respond(request, () => listJobs());
export const POST = (request: Request) => respond(request, async () => createJob((await body(request)).document));
