import { keepUpload } from "@/server/assets";
import { respond } from "@/server/respond";

export const POST = (request: Request) =>
  respond(request, () => keepUpload(request, new URL(request.url).searchParams.get("name") ?? "picture"));
