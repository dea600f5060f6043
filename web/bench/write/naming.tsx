import type { Naming } from "@oaken/core/job/document";
import { checkPattern, USUAL_PATTERN } from "@oaken/core/output/gcode/names";
import { TextField } from "../../ui/text-field.tsx";
import { Toggle } from "../../ui/toggle.tsx";
import { useActions, useBench } from "../context.tsx";

/** What is written besides programs, drawings and pictures. */
export interface Extras {
  frame: "none" | "through" | "stops";
  solid: boolean;
  tiff: boolean;
}
export const NO_EXTRAS: Extras = { frame: "none", solid: false, tiff: false };

const FRAMES = [
  { value: "none", label: "none" },
  { value: "through", label: "round" },
  { value: "stops", label: "with stops" },
] as const;
const SURFACES = [
  { key: "solid", label: "as a solid (STL)" },
  { key: "tiff", label: "as a height map that knows its size (TIFF, 16 bit)" },
] as const;

/** How programs are named, whose piece it is, and what is written besides. */
export function NamingCard({ extras, setExtras }: { extras: Extras; setExtras(e: Extras): void }) {
  const naming = useBench((s) => s.whole.naming) ?? {};
  const { changeWhole } = useActions();
  const set = (key: keyof Naming, value: string) => {
    if (key === "pattern" && value !== "") checkPattern(value);
    changeWhole(key === "pattern" ? "file names" : key, (d) => {
      d.naming = { ...d.naming, [key]: value };
      if (value === "") delete d.naming[key];
      if (Object.keys(d.naming).length === 0) delete d.naming;
    });
  };
  const field = (key: keyof Naming, label: string, placeholder: string) => (
    <div className="flex min-h-[38px] items-start gap-2">
      <label htmlFor={`naming-${key}`} className="w-[72px] shrink-0 pt-1 font-semibold">
        {label}
      </label>
      <div className="flex-1">
        <TextField
          id={`naming-${key}`}
          label={label}
          value={naming[key] ?? ""}
          placeholder={placeholder}
          most={200}
          mayBeEmpty
          onTake={(v) => set(key, v)}
        />
      </div>
    </div>
  );
  return (
    <div className="card p-4">
      <h2 className="mb-2 text-[15px]">Names, frame, surface</h2>
      {field("person", "Person", "whose piece it is")}
      {field("class", "Class", "or customer")}
      {field("pattern", "Names", USUAL_PATTERN)}
      <div className="flex min-h-[38px] items-center gap-2">
        <span className="w-[72px] shrink-0 font-semibold">Frame</span>
        <Toggle
          label="Frame"
          value={extras.frame}
          options={FRAMES}
          onChange={(frame) => setExtras({ ...extras, frame })}
        />
      </div>
      <p className="text-[12.5px] leading-[17px] text-soft">
        The frame goes round all that is cut, above the stock, with the spindle off.
      </p>
      <fieldset className="mt-2 border-t border-line pt-2">
        <legend className="float-left w-full font-semibold">The surface too</legend>
        {SURFACES.map(({ key, label }) => (
          <label key={key} className="flex min-h-[30px] w-full items-center gap-2">
            <input
              type="checkbox"
              className="h-4 w-4 accent-spruce"
              checked={extras[key]}
              onChange={(e) => setExtras({ ...extras, [key]: e.target.checked })}
            />
            {label}
          </label>
        ))}
      </fieldset>
    </div>
  );
}
