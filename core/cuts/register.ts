import { Problem } from "../problem.ts";
import { clear } from "./clear/clear.ts";
import { drill } from "./drill/drill.ts";
import { finish } from "./finish/finish.ts";
import { engrave } from "./engrave/engrave.ts";
import { hatch } from "./hatch/hatch.ts";
import type { CutKind } from "./kind.ts";
import { plasma } from "./plasma/plasma.ts";
import { lines } from "./lines/lines.ts";
import { pocket } from "./pocket/pocket.ts";
import { profile } from "./profile/profile.ts";
import { rest } from "./rest/rest.ts";
import { restfinish } from "./restfinish/restfinish.ts";
import { rough } from "./rough/rough.ts";
import { vcarve } from "./vcarve/vcarve.ts";

/** Every kind of cut there is; one line each. */
export const CUTS: readonly CutKind[] = [
  clear,
  vcarve,
  pocket,
  rest,
  profile,
  engrave,
  hatch,
  drill,
  plasma,
  rough,
  finish,
  restfinish,
  lines,
];

/** @throws Problem `unknown-cut` */
export function cutKind(kind: string): CutKind {
  const found = CUTS.find((c) => c.kind === kind);
  if (!found)
    throw new Problem(
      "unknown-cut",
      `This job has a cut of kind "${kind}", which this version does not know. Open it with a newer version of ` +
        "Oaken Bit.",
    );
  return found;
}

/** How the cutters of a cut are chosen. */
export interface Choosable {
  /** its own cutter is chosen too, not only those of the cuts that help it */
  own: boolean;
  /** the kind of cut that helps it; null where none does of which that can be told */
  help: CutKind | null;
}

/**
 * Whether cutters of a kind of cut can be tried against each other without planning each set: those that come before
 * it, or its own and those that come after.
 */
export function choosable(kind: string): Choosable | null {
  const of = cutKind(kind);
  if (!of.estimate || !of.left) return null;
  const helpers = CUTS.filter((k) => k.helps?.kind === kind && k.estimate);
  const before = helpers.find((k) => k.helps!.comes === "before");
  return before ? { own: false, help: before } : { own: true, help: helpers[0] ?? null };
}
