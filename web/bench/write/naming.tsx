import type { Naming } from "@oaken/core/job/document";
import { checkPattern, USUAL_PATTERN } from "@oaken/core/output/gcode/names";
import { TextField } from "../../ui/text-field.tsx";
import { Toggle } from "../../ui/toggle.tsx";
import { useActions, useBench } from "../context.tsx";

export type Frame = "none" | "through" | "stops";
const FRAMES = [
  { value: "none", label: "none" },
  { value: "through", label: "round" },
  { value: "stops", label: "with stops" },
] as const;

/** How programs are named, whose piece it is, and whether a frame is written. */
export function NamingCard({ frame, setFrame }: { frame: Frame; setFrame(f: Frame): void }) {
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
      <h2 className="mb-2 text-[15px]">Names and frame</h2>
      {field("person", "Person", "whose piece it is")}
      {field("class", "Class", "or customer")}
      {field("pattern", "Names", USUAL_PATTERN)}
      <div className="flex min-h-[38px] items-center gap-2">
        <span className="w-[72px] shrink-0 font-semibold">Frame</span>
        <Toggle label="Frame" value={frame} options={FRAMES} onChange={setFrame} />
      </div>
      <p className="text-[12.5px] leading-[17px] text-soft">
        The frame goes round all that is cut, above the stock, with the spindle off.
      </p>
    </div>
  );
}
