"use client";
import { useState } from "react";
import { feedsFor, usualStepdown } from "@oaken/core/cutters/feeds";
import { plasmaFor } from "@oaken/core/cutters/plasma";
import type { Cutter } from "@oaken/core/cutters/profile";
import { usualStepover } from "@oaken/core/cuts/fields";
import { spoken } from "@oaken/core/speech";
import { partNamed } from "@oaken/core/shop/parts";
import type { Shop } from "@oaken/core/shop/shop";
import { formatLength, type Unit } from "@oaken/core/units";
import { CutterDrawing } from "../ui/cutter-drawing.tsx";
import { Pick } from "../ui/pick.tsx";
import type { Kept } from "../server/shop.ts";
import { ShopPage } from "./table/shop-page.tsx";

/** Sheet for which a torch's numbers are shown, mm. */
const SHEET = 3;

/** The rack: every cutter as it is, drawn from its numbers, with what it would do in a material. */
export function RackPage({ entries, shop }: { entries: readonly Kept[]; shop: Shop }) {
  const [material, setMaterial] = useState(shop.materials[0].id);
  return (
    <ShopPage
      part={partNamed("cutters")}
      entries={entries}
      here="rack"
      picture={(e, unit) => <CutterDrawing cutter={e as unknown as Cutter} unit={unit} />}
      below={(e, unit) => (
        <WouldDo
          cutter={e as unknown as Cutter}
          shop={shop}
          material={material}
          setMaterial={setMaterial}
          unit={unit}
        />
      )}
    />
  );
}

interface WouldDoProps {
  cutter: Cutter;
  shop: Shop;
  material: string;
  setMaterial(id: string): void;
  unit: Unit;
}

/** Feed, speed and passes of a cutter in a material on the usual machine, each with its reason. */
function WouldDo({ cutter, shop, material: id, setMaterial, unit }: WouldDoProps) {
  const material = shop.materials.find((m) => m.id === id) ?? shop.materials[0];
  const [machine] = shop.machines;
  const rows = numbersOf(cutter, material, machine);
  return (
    <section aria-label="In a material" className="mt-2 border-t border-line pt-3">
      <div className="flex items-center justify-between gap-2">
        <h3 className="text-[15px]">In</h3>
        <Pick
          label="Material"
          value={material.id}
          options={shop.materials.map((m) => ({ value: m.id, label: m.name }))}
          onChange={setMaterial}
        />
      </div>
      <p className="text-[12.5px] text-soft">on the {machine.name.toLowerCase()}</p>
      <dl className="mt-2">
        {rows.map(({ name, value, of, reason }) => (
          <div key={name} className="grid grid-cols-[1fr_auto] border-t border-line py-1.5">
            <dt className="font-semibold">{name}</dt>
            <dd className="num">
              {of === "mm" ? `${formatLength(value, unit)} ${unit}` : `${formatLength(value)} ${of}`}
            </dd>
            <dd className="col-span-2 text-[12.5px] leading-[17px] text-soft">{spoken(reason, unit)}.</dd>
          </div>
        ))}
      </dl>
    </section>
  );
}

function numbersOf(cutter: Cutter, material: Shop["materials"][number], machine: Shop["machines"][number]) {
  if (cutter.kind === "torch") {
    const p = plasmaFor(material, SHEET);
    return [
      { name: "Feed", ...p.feed, of: "mm/min" },
      { name: "Pierce delay", ...p.pierceDelay, of: "s" },
      { name: "Cut height", ...p.cutHeight, of: "mm" },
    ];
  }
  const stepdown = usualStepdown({ cutter, material });
  const stepover = usualStepover(cutter, material);
  const feeds = feedsFor({ cutter, material, machine }, { depth: stepdown.value, width: stepover.value });
  return [
    { name: "Feed", ...feeds.feed, of: "mm/min" },
    { name: "Plunge", ...feeds.plunge, of: "mm/min" },
    { name: "Spindle", ...feeds.spindle, of: "/min" },
    { name: "Stepdown", ...stepdown, of: "mm" },
    { name: "Stepover", ...stepover, of: "mm" },
  ];
}
