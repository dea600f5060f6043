import { readStl } from "@oaken/core/height/stl";

/** Whether a file is to be taken as a solid: by its name, since an STL's content has no mark of its own. */
export const isSolidName = (name: string): boolean => /\.stl$/i.test(name);

/**
 * The bytes of a solid that can be read.
 * @throws Problem `bad-solid`
 */
export function solidOf(bytes: Uint8Array): Uint8Array {
  readStl(bytes);
  return bytes;
}
