import { type Cutter, sameCutter } from "@oaken/core/cutters/profile";
import type { Choosable } from "@oaken/core/cuts/register";
import type { BoardJob } from "@oaken/core/job/document";
import { takeCutters } from "@oaken/core/job/edit";

/** Takes a set of cutters that were chosen for a cut. */
export const takeChosen = (d: BoardJob, id: string, { own, help }: Choosable, cutters: readonly Cutter[]): void =>
  takeCutters(
    d,
    d.cuts.find((c) => c.id === id)!,
    { own, kind: help?.kind ?? null },
    cutters,
  );

/** The cutters of a cut that can be chosen, in order. */
export function cuttersOf(d: BoardJob, id: string, { own, help }: Choosable): Cutter[] {
  const cut = d.cuts.find((c) => c.id === id)!;
  const helping = d.cuts.filter((c) => c.target === id && c.kind === help?.kind).map((c) => c.cutter);
  return own ? [cut.cutter, ...helping] : helping;
}

export const areSame = (a: readonly Cutter[], b: readonly Cutter[]): boolean =>
  a.length === b.length && a.every((c, i) => sameCutter(c, b[i]));
