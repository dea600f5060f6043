"use client";
import { useEffect, useRef, useState } from "react";
import { useRouter } from "next/navigation";
import { ImagePlus } from "lucide-react";
import { api, uploadPicture } from "../ui/api.ts";

/** Takes a dropped, pasted or chosen picture to Begin, and a job file to its bench. */
/** Pictures that were dropped together wait here for their turn at Begin. */
const QUEUE = "oaken-pictures";
export interface Waiting {
  sha: string;
  name: string;
  width: number;
  height: number;
}
export const waitingPictures = (): Waiting[] => JSON.parse(sessionStorage.getItem(QUEUE) ?? "[]") as Waiting[];
export const beginAddress = ({ sha }: Waiting): string => `/begin?asset=${sha}`;

export function useTaking() {
  const router = useRouter();
  const [state, setState] = useState<{ busy: string | null; wrong: string | null }>({ busy: null, wrong: null });
  /** Several pictures at once: all are taken in, the first is begun with, the others wait beside it. */
  const takeAll = async (files: readonly File[]) => {
    if (files.length === 1) return take(files[0]);
    const taken: Waiting[] = [];
    const wrong: string[] = [];
    for (const [i, file] of files.entries()) {
      setState({ busy: `Reading ${file.name}, ${i + 1} of ${files.length} …`, wrong: null });
      try {
        taken.push(await uploadPicture(file));
      } catch (e) {
        wrong.push((e as Error).message);
      }
    }
    sessionStorage.setItem(QUEUE, JSON.stringify(taken));
    setState({ busy: null, wrong: wrong.length > 0 ? wrong.join(" ") : null });
    if (taken.length > 0) router.push(beginAddress(taken[0]));
  };
  const take = async (file: File) => {
    setState({ busy: `Reading ${file.name} …`, wrong: null });
    try {
      if (/\.json$/i.test(file.name)) {
        const made = await api<{ id: string }>("/api/jobs/import", { method: "POST", body: file });
        router.push(`/job/${made.id}`);
      } else {
        const asset = await uploadPicture(file);
        sessionStorage.removeItem(QUEUE);
        router.push(beginAddress(asset));
      }
    } catch (e) {
      setState({ busy: null, wrong: (e as Error).message });
    }
  };
  return { ...state, take, takeAll, clear: () => setState({ busy: null, wrong: null }) };
}

/** The whole page takes a drop; pasting works too. */
export function DropAnywhere({ take, text = "Drop pictures to begin" }: { take(files: File[]): void; text?: string }) {
  const [over, setOver] = useState(false);
  const latest = useRef(take);
  latest.current = take;
  useEffect(() => {
    let depth = 0;
    const on = <K extends keyof WindowEventMap>(k: K, f: (e: WindowEventMap[K]) => void) => {
      window.addEventListener(k, f);
      return () => window.removeEventListener(k, f);
    };
    const stops = [
      on("dragenter", (e) => {
        e.preventDefault();
        depth++;
        setOver(true);
      }),
      on("dragleave", () => --depth <= 0 && setOver(false)),
      on("dragover", (e) => e.preventDefault()),
      on("drop", (e) => {
        e.preventDefault();
        depth = 0;
        setOver(false);
        const files = [...(e.dataTransfer?.files ?? [])];
        if (files.length > 0) latest.current(files);
      }),
      on("paste", (e) => {
        const files = [...(e.clipboardData?.files ?? [])];
        if (files.length > 0) latest.current(files);
      }),
    ];
    return () => stops.forEach((s) => s());
  }, []);
  if (!over) return null;
  return (
    <div
      className={
        "pointer-events-none fixed inset-3 z-50 grid place-items-center rounded-xl border-4 border-dashed " +
        "border-spruce bg-film/85"
      }
    >
      <p className="flex items-center gap-3 font-head text-[24px]">
        <ImagePlus /> {text}
      </p>
    </div>
  );
}

/** A button that opens the file chooser. */
export function ChooseFile({
  take,
  label,
  accept,
  primary,
  several,
}: {
  take(files: File[]): void;
  label: string;
  accept: string;
  primary?: boolean;
  several?: boolean;
}) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <input
        ref={input}
        type="file"
        accept={accept}
        multiple={several}
        className="hidden"
        aria-label={label}
        onChange={(e) => {
          const files = [...(e.target.files ?? [])];
          e.target.value = "";
          if (files.length > 0) take(files);
        }}
      />
      <button className={`btn ${primary ? "btn-primary" : ""}`} onClick={() => input.current!.click()}>
        {primary && <ImagePlus size={16} />} {label}
      </button>
    </>
  );
}

export const PICTURES = "image/*,.bmp,.tif,.tiff,.avif,.webp,.svg";
