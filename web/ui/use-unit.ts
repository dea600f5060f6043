"use client";
import { useEffect, useState } from "react";
import type { Unit } from "@oaken/core/units";
import { rememberedUnit, rememberUnit } from "./unit.ts";

/** The person's unit on pages outside the bench. mm on the server, which does not know the person. */
export function useUnit(): [Unit, (unit: Unit) => void] {
  const [unit, setUnit] = useState<Unit>("mm");
  useEffect(() => setUnit(rememberedUnit()), []);
  return [
    unit,
    (chosen) => {
      rememberUnit(chosen);
      setUnit(chosen);
    },
  ];
}
