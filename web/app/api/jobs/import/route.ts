import { importJob } from "@/server/jobs";
import { readBytes, respond } from "@/server/respond";

/** A job file carries its pictures in base64: a third larger than they are. */
const MOST = 256 << 20;

export const POST = (request: Request) => respond(async () => importJob(Buffer.from(await readBytes(request, MOST)).toString("utf8")));
