/** What the server said when it would not: a code and a sentence. */
export class Refused extends Error {
  readonly code: string;
  constructor(code: string, message: string) {
    super(message);
    this.code = code;
  }
}

/** A request to our own server; JSON in and out. @throws Refused */
export async function api<T>(path: string, init: RequestInit & { json?: unknown } = {}): Promise<T> {
  const { json, ...rest } = init;
  let response: Response;
  try {
    response = await fetch(
      path,
      json === undefined
        ? rest
        : { ...rest, headers: { "Content-Type": "application/json" }, body: JSON.stringify(json) },
    );
  } catch {
    throw new Refused("offline", "Oaken Bit's server does not answer. Start it again with ./oaken start.");
  }
  if (!response.ok) throw await refusal(response);
  return (await response.json()) as T;
}

async function refusal(response: Response): Promise<Refused> {
  const said = (await response.json().catch(() => null)) as { code?: string; message?: string } | null;
  return new Refused(said?.code ?? "fault", said?.message ?? `The server answered ${response.status}.`);
}

/** Whether a file that was sent is a drawing whose shapes can be taken. @throws Refused */
export async function checkDrawing(sha: string): Promise<void> {
  const response = await fetch(`/api/assets/${sha}/drawing`);
  if (!response.ok) throw await refusal(response);
}

/** Sends a picture to the server. */
export const uploadPicture = (file: File) =>
  api<{ sha: string; name: string; width: number; height: number }>(
    `/api/assets?name=${encodeURIComponent(file.name || "pasted picture.png")}`,
    { method: "POST", body: file },
  );
