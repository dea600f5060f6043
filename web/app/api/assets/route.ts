import { MAX_BYTES } from "@oaken/files/decode";
import { keepPicture } from "@/server/assets";
import { readBytes, respond } from "@/server/respond";

export const POST = (request: Request) =>
  respond(async () => {
    const name = new URL(request.url).searchParams.get("name") ?? "picture";
    return keepPicture(await readBytes(request, MAX_BYTES), name);
  });
