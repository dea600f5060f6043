"use client";
import type { Entry } from "@oaken/core/shop/column";
import { partNamed } from "@oaken/core/shop/parts";
import type { Kept } from "../server/shop.ts";
import { ShopPage } from "./table/shop-page.tsx";

const css = (rgb: unknown): string => `rgb(${(rgb as number[]).join(" ")})`;

/** A board of the material with a groove in it, in its colours. */
function Swatch({ entry }: { entry: Entry }) {
  return (
    <svg viewBox="0 0 288 92" className="mb-3 w-full rounded-md bg-mat" role="img" aria-label={`${entry.name}, cut`}>
      <path d="M24 22h240v34H24z" fill={css(entry.face)} />
      <path d="M24 56h240v16H24z" fill={css(entry.cut)} />
      <path d="M84 22h120l-34 24h-52z" fill={css(entry.cut)} />
      <path d="M84 22l34 24h52" fill="none" stroke="rgb(0 0 0 / 0.25)" />
    </svg>
  );
}

/** Materials with what they bear: chip, speed, depth of a pass, energy, colours. */
export function MaterialsPage({ entries }: { entries: readonly Kept[] }) {
  return (
    <ShopPage part={partNamed("materials")} entries={entries} here="materials" picture={(e) => <Swatch entry={e} />} />
  );
}
