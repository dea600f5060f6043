"use client";
import { useState } from "react";
import { FolderDown } from "lucide-react";
import { canWriteFolders, chooseFolder, takenIn, writeInto } from "../../ui/folder.ts";

type Files = readonly (readonly [name: string, bytes: Uint8Array])[];

interface Waiting {
  folder: FileSystemDirectoryHandle;
  files: Files;
  taken: readonly string[];
}

/** Names that are shown of those that are taken. */
const SHOWN = 4;

/** Writes everything into a folder on the computer; what lies there under the same names is asked about first. */
export function SaveFolder({ files, isHeld, done }: { files(): Promise<Files>; isHeld: boolean; done(): void }) {
  const [waiting, setWaiting] = useState<Waiting | null>(null);
  const [said, setSaid] = useState<{ text: string; isWrong: boolean } | null>(null);
  if (!canWriteFolders()) return null;
  const write = async ({ folder, files: all }: Pick<Waiting, "folder" | "files">) => {
    setWaiting(null);
    await writeInto(folder, all);
    setSaid({ text: `${all.length} files are in ${folder.name || "the folder"}.`, isWrong: false });
    done();
  };
  const guarded = (work: () => Promise<void>) => {
    setSaid(null);
    void work().catch((e: Error) => setSaid({ text: e.message, isWrong: true }));
  };
  const begin = async () => {
    // The folder first: browsers let a page ask for one only right after a click.
    const folder = await chooseFolder();
    if (!folder) return;
    const all = await files();
    const names = all.map(([name]) => name);
    const taken = await takenIn(folder, names);
    if (taken.length > 0) setWaiting({ folder, files: all, taken });
    else await write({ folder, files: all });
  };
  const more = waiting ? waiting.taken.length - SHOWN : 0;
  return (
    <>
      <button type="button" className="btn" disabled={isHeld} onClick={() => guarded(begin)}>
        <FolderDown size={16} /> Into a folder …
      </button>
      {waiting && (
        <div role="alert" className="basis-full rounded-md border border-amber/40 bg-amber/5 p-3">
          <p>
            There {waiting.taken.length === 1 ? "is a file" : "are files"} of{" "}
            {waiting.taken.length === 1 ? "this name" : "these names"} in {waiting.folder.name || "the folder"}:{" "}
            {waiting.taken.slice(0, SHOWN).join(", ")}
            {more > 0 && ` and ${more} more`}.
          </p>
          <div className="mt-2 flex gap-2">
            <button type="button" className="btn !h-8" onClick={() => guarded(() => write(waiting))}>
              Replace
            </button>
            <button type="button" className="btn !h-8" onClick={() => setWaiting(null)}>
              Leave as it is
            </button>
          </div>
        </div>
      )}
      {said && (
        <p role="status" className={`basis-full ${said.isWrong ? "text-danger" : "text-soft"}`}>
          {said.text}
        </p>
      )}
    </>
  );
}
