import { afterEach, describe, expect, it, vi } from "vitest";
import { chooseFolder, takenIn, writeInto } from "./folder.ts";

/** A folder in memory, in which a file is what was written last and closed. */
function folder(room = Infinity) {
  const files = new Map<string, number[]>();
  const handle = {
    getFileHandle: (name: string, { create = false } = {}) => {
      if (!files.has(name) && !create)
        return Promise.reject(Object.assign(new Error("gone"), { name: "NotFoundError" }));
      let open: number[] = [];
      return Promise.resolve({
        createWritable: () =>
          Promise.resolve({
            write: (bytes: Uint8Array) => {
              if (bytes.length > room) return Promise.reject(new Error("Quota exceeded."));
              open = [...bytes];
              return Promise.resolve();
            },
            close: () => Promise.resolve(void files.set(name, open)),
            abort: () => Promise.resolve(),
          }),
      });
    },
  } as unknown as FileSystemDirectoryHandle;
  return { files, handle };
}
afterEach(() => vi.unstubAllGlobals());

describe("files into a folder", () => {
  it("are there whole, and those that were there are known by name", async () => {
    const { files, handle } = folder();
    await writeInto(handle, [
      ["a.nc", new Uint8Array([1, 2])],
      ["b.nc", new Uint8Array([3])],
    ]);
    expect([...files]).toEqual([
      ["a.nc", [1, 2]],
      ["b.nc", [3]],
    ]);
    expect(await takenIn(handle, ["c.nc", "b.nc"])).toEqual(["b.nc"]);
  });

  it("that do not fit leave what was there before, and it is said which", async () => {
    const { files, handle } = folder(2);
    await writeInto(handle, [["a.nc", new Uint8Array([1])]]);
    await expect(writeInto(handle, [["a.nc", new Uint8Array([1, 2, 3])]])).rejects.toThrow(
      /a\.nc could not be written/,
    );
    expect(files.get("a.nc")).toEqual([1]);
  });

  it("a person who thinks better of it writes nothing; any other fault is one", async () => {
    const ask = (name: string) =>
      vi.stubGlobal("window", { showDirectoryPicker: () => Promise.reject(Object.assign(new Error("no"), { name })) });
    ask("AbortError");
    expect(await chooseFolder()).toBeNull();
    ask("SecurityError");
    await expect(chooseFolder()).rejects.toThrow("no");
  });
});
