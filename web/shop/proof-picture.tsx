"use client";
import { useEffect, useRef, useState } from "react";

/** The proof as the bench last saw it; a plain mat until there is one. */
export function ProofPicture({ id, revision, name }: { id: string; revision: number; name: string }) {
  const [missing, setMissing] = useState(false);
  const image = useRef<HTMLImageElement>(null);
  // On a page that came finished from the server, the picture may have failed before anybody listened.
  useEffect(() => {
    if (image.current?.complete && image.current.naturalWidth === 0) setMissing(true);
  }, []);
  return (
    <div className="relative aspect-[3/2] bg-mat">
      {missing ? (
        <span className="absolute inset-0 grid place-items-center text-[13px] text-[#a9c0b5]">no proof yet</span>
      ) : (
        <img
          ref={image}
          src={`/api/jobs/${id}/thumb?r=${revision}`}
          alt={`Proof of ${name}`}
          onError={() => setMissing(true)}
          className={
            "absolute inset-3 m-auto max-h-[calc(100%-24px)] max-w-[calc(100%-24px)] rounded-[2px] " +
            "shadow-[4px_6px_14px_rgb(0_0_0/0.5)]"
          }
        />
      )}
    </div>
  );
}
