import type { Output } from "@oaken/core/job/outputs";
import { encodeGrey16, encodePng } from "./encode.ts";

/** A file of a finished job, ready to be saved. */
export interface OutputFile {
  name: string;
  bytes: Buffer;
}

/** Outputs as files: texts as they are, pictures as PNG. */
export const encoded = (outputs: readonly Output[]): Promise<OutputFile[]> =>
  Promise.all(
    outputs.map(async ({ name, content }) => {
      if (typeof content === "string") return { name, bytes: Buffer.from(content) };
      if (content instanceof Uint8Array) return { name, bytes: Buffer.from(content) };
      const { data, width, height } = content;
      if (data instanceof Uint16Array) return { name, bytes: await encodeGrey16(data, width, height) };
      return { name, bytes: await encodePng(data, width, height) };
    }),
  );
