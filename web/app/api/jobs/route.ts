import { OUTCOMES } from "@oaken/core/job/outcomes";
import { createJob, createOfWords, listJobs } from "@/server/jobs";
import { bodyReader, MOST_DOCUMENT, respond } from "@/server/respond";

const schema = {
  type: "object",
  properties: {
    document: { type: "object" },
    /** instead of a document: an outcome, made of words alone */
    words: { enum: OUTCOMES.map((o) => o.id) },
  },
  minProperties: 1,
  additionalProperties: false,
};
const body = bodyReader<{ document?: object; words?: string }>(schema, MOST_DOCUMENT);

export const dynamic = "force-dynamic";
export const GET = (request: Request) => respond(request, () => listJobs());
export const POST = (request: Request) =>
  respond(request, async () => {
    const { document, words } = await body(request);
    return words === undefined ? createJob(document) : createOfWords(words);
  });
