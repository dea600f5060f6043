"use client";
import { useState } from "react";

/** The proof as it was last seen, where the stock will lie, until the first computed one is there. */
export function KeptProof({ id }: { id: string }) {
  const [missing, setMissing] = useState(false);
  return (
    <div className="pointer-events-none absolute inset-0 grid place-items-center">
      {!missing && <img data-kept-proof src={`/api/jobs/${id}/thumb`} alt="The proof as it was last seen" onError={() => setMissing(true)} className="h-[78%] w-[88%] object-contain drop-shadow-[6px_8px_12px_rgb(0_0_0/0.45)]" />}
      <span className="catching-up absolute bottom-0 h-[3px] w-full" aria-hidden="true" />
      <span role="status" className="plate absolute bottom-14 px-3 py-1 text-[13px]">{missing ? "working out the proof" : "as last seen; catching up"}</span>
    </div>
  );
}
