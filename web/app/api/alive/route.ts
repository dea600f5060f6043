import { respond } from "@/server/respond";

export const dynamic = "force-dynamic";
/** Whether the server is there; an open page asks now and then. */
export const GET = (request: Request) => respond(request, async () => ({}));
