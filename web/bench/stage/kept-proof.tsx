"use client";
import { useState } from "react";
import { aboutOf } from "@oaken/core/job/graph";
import type { BoardJob } from "@oaken/core/job/document";

/**
 * What stands where the stock will lie until the first computed proof is there: the proof as it was last seen, or else
 * the stock with its picture.
 * @param doc not known while the job is still on its way
 * @param isKept whether it may have been kept: only the first board's is
 */
export function KeptProof({ id, doc, isKept = true }: { id: string; doc?: BoardJob; isKept?: boolean }) {
  const [isGone, setGone] = useState(false);
  const missing = isGone || !isKept;
  return (
    <div className="pointer-events-none absolute inset-0 grid place-items-center">
      {!missing && (
        <img
          data-kept-proof
          src={`/api/jobs/${id}/thumb`}
          alt="The proof as it was last seen"
          onError={() => setGone(true)}
          className="h-[78%] w-[88%] object-contain drop-shadow-[6px_8px_12px_rgb(0_0_0/0.45)]"
        />
      )}
      {missing && doc && <PlainStock doc={doc} />}
      <span className="catching-up absolute bottom-0 h-[3px] w-full" aria-hidden="true" />
      <span role="status" className="plate absolute bottom-14 px-3 py-1 text-[13px]">
        {missing ? "working out the proof" : "as last seen; catching up"}
      </span>
    </div>
  );
}

/** The stock as it lies, uncut, with the picture on it about as large as it will be. */
function PlainStock({ doc }: { doc: BoardJob }) {
  const { width, height, margin, material, paint } = doc.stock;
  const [r, g, b] = material.face;
  const sha = aboutOf(doc, "", "raster")?.asset?.sha;
  return (
    <div className="grid h-[78%] w-[88%] place-items-center [container-type:size]">
      <div
        data-plain-stock
        className="grid place-items-center drop-shadow-[6px_8px_12px_rgb(0_0_0/0.45)]"
        style={{
          aspectRatio: `${width} / ${height}`,
          width: `min(100cqw, ${(100 * width) / height}cqh)`,
          background: paint ?? `rgb(${r} ${g} ${b})`,
          padding: `${(100 * margin) / width}%`,
        }}
      >
        {sha && (
          <img
            src={`/api/assets/${sha}/picture`}
            alt="The picture, about where it will lie"
            className="h-full w-full object-contain opacity-80 mix-blend-multiply"
          />
        )}
      </div>
    </div>
  );
}
