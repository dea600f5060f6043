"use client";
import { useEffect, useRef, useState } from "react";
import { useRouter } from "next/navigation";
import { ImagePlus } from "lucide-react";
import { api, uploadPicture } from "../ui/api.ts";

/** Takes a dropped, pasted or chosen picture to Begin, and a job file to its bench. */
export function useTaking() {
  const router = useRouter();
  const [state, setState] = useState<{ busy: string | null; wrong: string | null }>({ busy: null, wrong: null });
  const take = async (file: File) => {
    setState({ busy: `Reading ${file.name} …`, wrong: null });
    try {
      if (/\.json$/i.test(file.name)) {
        const made = await api<{ id: string }>("/api/jobs/import", { method: "POST", body: file });
        router.push(`/job/${made.id}`);
      } else {
        const asset = await uploadPicture(file);
        router.push(`/begin?asset=${asset.sha}&name=${encodeURIComponent(asset.name)}&w=${asset.width}&h=${asset.height}`);
      }
    } catch (e) {
      setState({ busy: null, wrong: (e as Error).message });
    }
  };
  return { ...state, take, clear: () => setState({ busy: null, wrong: null }) };
}

/** The whole page takes a drop; pasting works too. */
export function DropAnywhere({ take }: { take(f: File): void }) {
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
        const f = e.dataTransfer?.files[0];
        if (f) latest.current(f);
      }),
      on("paste", (e) => {
        const f = [...(e.clipboardData?.files ?? [])][0];
        if (f) latest.current(f);
      }),
    ];
    return () => stops.forEach((s) => s());
  }, []);
  if (!over) return null;
  return (
    <div className="pointer-events-none fixed inset-3 z-50 grid place-items-center rounded-xl border-4 border-dashed border-spruce bg-film/85">
      <p className="flex items-center gap-3 font-head text-[24px]">
        <ImagePlus /> Drop the picture to begin
      </p>
    </div>
  );
}

/** A button that opens the file chooser. */
export function ChooseFile({ take, label, accept, primary }: { take(f: File): void; label: string; accept: string; primary?: boolean }) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <input ref={input} type="file" accept={accept} className="hidden" aria-label={label} onChange={(e) => {
        const f = e.target.files?.[0];
        e.target.value = "";
        if (f) take(f);
      }} />
      <button className={`btn ${primary ? "btn-primary" : ""}`} onClick={() => input.current!.click()}>
        {primary && <ImagePlus size={16} />} {label}
      </button>
    </>
  );
}

export const PICTURES = "image/*,.bmp,.tif,.tiff,.avif,.webp";
