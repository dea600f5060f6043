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

/** The kind of cut that comes before a kind to help it, where how long both take can be told without planning. */
export function chosenHelp(kind: string): CutKind | null {
  const help = CUTS.find((k) => k.helps?.kind === kind && k.helps.comes === "before");
  return help?.estimate && cutKind(kind).estimate ? help : null;
}
