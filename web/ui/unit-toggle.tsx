"use client";
import type { Unit } from "@oaken/core/units";
import { Toggle } from "./toggle.tsx";

const UNITS = [
  { value: "mm", label: "mm" },
  { value: "in", label: "in" },
] as const;

/** Millimetres or inches: the person's own, on every page alike. */
export const UnitToggle = ({ unit, onChange }: { unit: Unit; onChange(unit: Unit): void }) => (
  <Toggle label="Unit" value={unit} options={UNITS} onChange={onChange} />
);
