import { useState } from "react";
import { type Field, parseSetting, type Setting } from "@oaken/core/settings/fields";
import { MM_PER_INCH } from "@oaken/core/units";
import { useBench } from "./context.tsx";

const UNITS: Partial<Record<Field["type"], string>> = { area: "mm²", angle: "°", feed: "mm/min", speed: "/min" };
/** What a number is divided by, and its unit, where the person has inches. */
const IN_INCHES: Partial<Record<Field["type"], { by: number; unit: string; decimals: number }>> = {
  feed: { by: MM_PER_INCH, unit: "in/min", decimals: 1 },
  area: { by: MM_PER_INCH ** 2, unit: "in²", decimals: 5 },
};

interface NumberFieldProps {
  id: string;
  f: Field;
  value: number;
  onChange(v: Setting): void;
  marked: boolean;
}

/** A number with its unit, as a field of the slip. */
export function NumberField({ id, f, value, onChange, marked }: NumberFieldProps) {
  const inches = useBench((s) => s.unit) === "in" ? IN_INCHES[f.type] : undefined;
  const show = (v: number): string => {
    if (f.type === "share") return (v * 100).toFixed(1).replace(/\.0$/, "");
    if (inches) return String(Number((v / inches.by).toFixed(inches.decimals)));
    if (f.type === "feed" || f.type === "speed") return Math.round(v).toLocaleString("en");
    return String(Math.round(v * 1000) / 1000);
  };
  const read = (typed: string): Setting => {
    if (f.type === "share") return parseSetting(f, `${typed.replace("%", "")}%`);
    const plain = typed.replaceAll(",", "").replace(/\s*in(\/min|²|2)?\s*$/, "");
    if (inches && plain.trim() !== "" && Number.isFinite(Number(plain)))
      return parseSetting(f, String(Number((Number(plain) * inches.by).toFixed(6))));
    return parseSetting(f, typed);
  };
  const [text, setText] = useState<string | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const commit = () => {
    if (text !== null && text !== show(value)) {
      try {
        onChange(read(text));
        setWrong(null);
      } catch (e) {
        setWrong((e as Error).message);
        return;
      }
    }
    setText(null);
    setWrong(null);
  };
  return (
    <span className="inline-flex flex-col items-end">
      <span
        className={
          `box inline-flex w-[116px] items-center gap-1 ${marked ? "!border-pencil" : ""} ` +
          `${wrong ? "!border-danger" : ""}`
        }
      >
        <input
          id={id}
          aria-label={f.label}
          aria-invalid={!!wrong}
          className="w-full min-w-0 bg-transparent text-right outline-none"
          value={text ?? show(value)}
          onChange={(e) => setText(e.target.value)}
          onBlur={commit}
          onKeyDown={(e) => e.key === "Enter" && commit()}
        />
        <span className="shrink-0 text-faint">{f.type === "share" ? "%" : (inches?.unit ?? UNITS[f.type])}</span>
      </span>
      {wrong && (
        <span role="alert" className="mt-1 max-w-56 text-right text-xs text-danger">
          {wrong}
        </span>
      )}
    </span>
  );
}
