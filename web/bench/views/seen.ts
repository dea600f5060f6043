import type { JobMaking } from "@oaken/core/job/document";
import { useParts, useSpoken } from "../context.tsx";
import type { Seen } from "./view.ts";

/** Gives each making as it is seen now: with what it gives, in the unit at hand. */
export function useSeen(): (making: JobMaking) => Seen {
  const { doc, built, unit } = useParts("doc", "built", "unit");
  const say = useSpoken();
  return (making) => ({
    doc,
    making,
    drawn: built?.makings[making.id] ?? null,
    resolved: built?.resolved[making.id],
    isBuilt: built !== null,
    unit,
    say,
  });
}
