"use client";
import { useEffect, useRef, useState } from "react";
import { Problem } from "@oaken/core/problem";
import { fieldLength } from "@oaken/core/speech";
import { parseLength, type Unit } from "@oaken/core/units";

interface Props {
  label: string;
  value: number;
  unit: Unit;
  onChange(mm: number): void;
  min?: number;
  max?: number;
  id?: string;
  marked?: boolean;
  width?: number;
}

/**
 * A length as people type it, arithmetic and either unit included; commits on Enter or leaving, steps with the arrows.
 */
export function LengthField({
  label,
  value,
  unit,
  onChange,
  min = -Infinity,
  max = Infinity,
  id,
  marked,
  width = 104,
}: Props) {
  const shown = fieldLength(value, unit);
  const [text, setText] = useState(shown);
  const [wrong, setWrong] = useState<string | null>(null);
  const editing = useRef(false);
  useEffect(() => {
    if (!editing.current) setText(shown);
  }, [shown]);
  const commit = () => {
    editing.current = false;
    if (text === shown) return setWrong(null);
    try {
      const mm = parseLength(text, unit);
      if (mm < min || mm > max)
        throw new Problem(
          "range",
          `Give a length from ${fieldLength(min, unit)} to ${fieldLength(max, unit)} ${unit}.`,
        );
      setWrong(null);
      onChange(mm);
    } catch (e) {
      setWrong((e as Error).message);
    }
  };
  return (
    <span className="inline-flex flex-col items-end">
      <span
        className={
          "box inline-flex items-center gap-1 " +
          `${marked ? "!border-pencil" : ""} ` +
          `${wrong ? "!border-danger" : ""}`
        }
        style={{ width }}
      >
        <input
          id={id}
          aria-label={label}
          aria-invalid={!!wrong}
          className="w-full min-w-0 bg-transparent text-right outline-none"
          value={text}
          onFocus={() => (editing.current = true)}
          onChange={(e) => setText(e.target.value)}
          onBlur={commit}
          onKeyDown={(e) => {
            if (e.key === "Enter") commit();
            if (e.key === "Escape") {
              setText(shown);
              setWrong(null);
            }
            if (e.key === "ArrowUp" || e.key === "ArrowDown") {
              e.preventDefault();
              const step =
                (unit === "mm" ? 1 : 25.4 / 16) *
                (e.shiftKey ? 10 : 1) *
                (e.altKey ? 0.1 : 1) *
                (e.key === "ArrowUp" ? 1 : -1);
              const next = Math.min(max, Math.max(min, value + step));
              editing.current = false;
              onChange(Math.round(next * 10000) / 10000);
            }
          }}
        />
        <span className="shrink-0 text-faint">{unit}</span>
      </span>
      {wrong && (
        <span role="alert" className="mt-1 max-w-56 text-right text-xs text-danger">
          {wrong}
        </span>
      )}
    </span>
  );
}
