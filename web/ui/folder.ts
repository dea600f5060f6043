/** The part of the File System Access API that only some browsers have. */
interface Choosing {
  showDirectoryPicker?(how: { mode: "readwrite"; id?: string }): Promise<FileSystemDirectoryHandle>;
}

/** Whether this browser can write into a folder on the computer. */
export const canWriteFolders = (): boolean => "showDirectoryPicker" in window;

/** Asks for a folder. @returns null where the person thought better of it */
export async function chooseFolder(): Promise<FileSystemDirectoryHandle | null> {
  try {
    return await (window as Choosing).showDirectoryPicker!({ mode: "readwrite", id: "programs" });
  } catch (e) {
    if ((e as Error).name === "AbortError") return null;
    throw e;
  }
}

/** Which of these names are taken in a folder. */
export async function takenIn(folder: FileSystemDirectoryHandle, names: readonly string[]): Promise<string[]> {
  const taken: string[] = [];
  for (const name of names)
    try {
      await folder.getFileHandle(name);
      taken.push(name);
    } catch (e) {
      if ((e as Error).name !== "NotFoundError") throw e;
    }
  return taken;
}

/** Writes files into a folder, each whole or not at all: the browser puts a finished one in its place. */
export async function writeInto(
  folder: FileSystemDirectoryHandle,
  files: readonly (readonly [name: string, bytes: Uint8Array])[],
): Promise<void> {
  for (const [name, bytes] of files) {
    const file = await (await folder.getFileHandle(name, { create: true })).createWritable();
    try {
      await file.write(bytes as BufferSource);
      await file.close();
    } catch (e) {
      await file.abort().catch(() => {});
      throw new Error(`${name} could not be written: ${(e as Error).message} Is there room in the folder?`);
    }
  }
}
