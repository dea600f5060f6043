"use client";
import { Switch } from "radix-ui";
import { MOST_COAT, ZEROS, zeroWords } from "@oaken/core/job/document";
import { materialIn } from "@oaken/core/shop/shop";
import { LengthField } from "../ui/length-field.tsx";
import { choices, Pick } from "../ui/pick.tsx";
import { useShop } from "../ui/shop.tsx";
import { useActions, useParts } from "./context.tsx";
import { BoardRows } from "./boards.tsx";
import { ClampRows } from "./clamp-rows.tsx";
import { Head } from "./slip-head.tsx";

/** What is measured on the stock, mm. */
const LENGTHS = [
  { key: "width", name: "Width", label: "Stock width", least: 5, most: 10000, note: "left to right" },
  { key: "height", name: "Height", label: "Stock height", least: 5, most: 10000, note: "near to far" },
  { key: "thickness", name: "Thickness", label: "Stock thickness", least: 0.2, most: 500, note: undefined },
  { key: "margin", name: "Margin", label: "Margin", least: 0, most: 500, note: "art keeps this far from the edges" },
] as const;

/** The stock: its size as measured, its material and paint, where the machine is zeroed. */
export function StockSlip() {
  const { doc, whole, unit } = useParts("doc", "whole", "unit");
  const shop = useShop();
  const isOne = whole.boards.length === 1;
  const { change } = useActions();
  const row = (label: string, field: React.ReactNode, note?: string) => (
    <div className="border-t border-line py-2.5">
      <div className="flex min-h-[30px] items-center justify-between gap-2">
        <span className="font-semibold">{label}</span>
        {field}
      </div>
      {note && <p className="text-[12.5px] text-soft">{note}</p>}
    </div>
  );
  return (
    <>
      <Head title={isOne ? "Stock" : doc.board.name} about="as measured, not as sold" />
      <div className="px-3">
        {LENGTHS.map(({ key, name, label, least, most, note }) => (
          <div key={key}>
            {row(
              name,
              <LengthField
                label={label}
                value={doc.stock[key]}
                unit={unit}
                min={least}
                max={most}
                onChange={(v) => change(`stock ${key}`, (d) => void (d.stock[key] = v))}
              />,
              note,
            )}
          </div>
        ))}
        {row(
          "Material",
          <Pick
            label="Material"
            value={doc.stock.material.id}
            options={choices(shop.materials, doc.stock.material)}
            onChange={(v) => change("material", (d) => void (d.stock.material = materialIn(shop, v)))}
          />,
          "sets feeds and depths",
        )}
        {row(
          "Painted",
          <span className="flex items-center gap-2">
            {doc.stock.paint && (
              <input
                type="color"
                aria-label="Colour of the paint"
                className="h-[30px] w-11 rounded border border-line bg-raised p-0.5"
                value={doc.stock.paint}
                onChange={(e) => change("paint", (d) => void (d.stock.paint = e.target.value))}
              />
            )}
            <Switch.Root
              aria-label="Painted"
              checked={!!doc.stock.paint}
              onCheckedChange={(v) =>
                change("paint", (d) => {
                  if (v) d.stock.paint = "#2f5d48";
                  else {
                    delete d.stock.paint;
                    delete d.stock.coat;
                  }
                })
              }
              className="h-[28px] w-11 rounded-full border border-line bg-sunk p-0.5 data-[state=checked]:bg-spruce"
            >
              <Switch.Thumb
                className={
                  "block h-[20px] w-[20px] translate-x-0.5 rounded-full bg-white shadow transition-transform " +
                  "duration-100 data-[state=checked]:translate-x-[18px]"
                }
              />
            </Switch.Root>
          </span>,
          "a skin on top, shown against what is cut bare",
        )}
        {doc.stock.paint &&
          row(
            "Coat",
            <LengthField
              label="Thickness of the paint"
              value={doc.stock.coat ?? 0}
              unit={unit}
              min={0}
              max={MOST_COAT}
              onChange={(v) => change("thickness of the paint", (d) => void (d.stock.coat = v))}
            />,
            "how thick the paint is; grooves narrower at its underside show less bare stock",
          )}
        {row(
          "Work zero",
          <Pick
            label="Work zero"
            className="max-w-[172px] max-[1100px]:max-w-[140px]"
            value={doc.stock.zero}
            options={ZEROS.map((z) => ({ value: z, label: zeroWords(z) }))}
            onChange={(v) => change("work zero", (d) => void (d.stock.zero = v))}
          />,
          "where the machine is zeroed; the yellow mark on the mat",
        )}
        <ClampRows />
        <BoardRows />
      </div>
    </>
  );
}
