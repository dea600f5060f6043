"use client";
import { Switch } from "radix-ui";
import { MATERIALS } from "@oaken/core/cutters/materials";
import { ZEROS, zeroWords } from "@oaken/core/job/document";
import { LengthField } from "../ui/length-field.tsx";
import { Pick } from "../ui/pick.tsx";
import { useActions, useBench } from "./context.tsx";
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
  const { doc, unit } = useBench((s) => s);
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
      <Head title="Stock" about="as measured, not as sold" />
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
            value={doc.stock.material}
            options={MATERIALS.map((m) => ({ value: m.id, label: m.name }))}
            onChange={(v) => change("material", (d) => void (d.stock.material = v))}
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
                  else delete d.stock.paint;
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
      </div>
    </>
  );
}
