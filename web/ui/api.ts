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
  if (!response.ok) {
    const said = (await response.json().catch(() => null)) as { code?: string; message?: string } | null;
    throw new Refused(said?.code ?? "fault", said?.message ?? `The server answered ${response.status}.`);
  }
  return (await response.json()) as T;
}

/** Sends a picture to the server. */
export const uploadPicture = (file: File) =>
  api<{ sha: string; name: string; width: number; height: number }>(
    `/api/assets?name=${encodeURIComponent(file.name || "pasted picture.png")}`,
    { method: "POST", body: file },
  );
