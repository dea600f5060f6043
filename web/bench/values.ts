import type { Resolved, Settings } from "@oaken/core/settings/fields";

/** Settings as they hold: those of a person's own, the rest as worked out. */
export function valuesOf(resolved: Record<string, Resolved> | undefined, own: Settings): Settings {
  const out: Settings = { ...own };
  for (const [k, r] of Object.entries(resolved ?? {})) out[k] = own[k] ?? r.value;
  return out;
}
