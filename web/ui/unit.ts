import type { Unit } from "@oaken/core/units";

const KEY = "oaken-unit";

/** The person's unit: the one chosen last on this machine; at first a guess by the browser's language. */
export function rememberedUnit(): Unit {
  if (typeof window === "undefined") return "mm";
  try {
    const kept = localStorage.getItem(KEY);
    if (kept === "mm" || kept === "in") return kept;
  } catch {
    // Storage may be switched off: then the guess serves.
  }
  return navigator.language === "en-US" ? "in" : "mm";
}

export function rememberUnit(unit: Unit): void {
  try {
    localStorage.setItem(KEY, unit);
  } catch {
    // Not kept, but nothing else depends on it.
  }
}
