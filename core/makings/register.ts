import type { MakingKind } from "./kind.ts";
import { blend } from "./blend/blend.ts";
import { combine } from "./combine/combine.ts";
import { height } from "./height/height.ts";
import { imported } from "./import/import.ts";
import { lettering } from "./lettering/lettering.ts";
import { litho } from "./litho/litho.ts";
import { outline } from "./outline/outline.ts";
import { picture } from "./picture/picture.ts";
import { raise } from "./raise/raise.ts";
import { solid } from "./solid/solid.ts";
import { texture } from "./texture/texture.ts";
import { tone } from "./tone/tone.ts";
import { wedge } from "./wedge/wedge.ts";
import type { Gives } from "./product.ts";
import { Problem } from "../problem.ts";

/** Every kind of making; one line each. */
export const MAKINGS: readonly MakingKind[] = [
  picture,
  tone,
  outline,
  imported,
  lettering,
  combine,
  raise,
  height,
  litho,
  wedge,
  solid,
  texture,
  blend,
];

/** Kinds that can be made from a product: what they read first is such a one. */
export const kindsReading = (gives: Gives): MakingKind[] =>
  MAKINGS.filter((k) => Object.values(k.reads)[0]?.gives === gives);

/** @throws Problem `unknown-making` */
export function makingKind(kind: string): MakingKind {
  const found = MAKINGS.find((m) => m.kind === kind);
  if (!found) throw new Problem("unknown-making", `"${kind}" is a step that this version does not know.`);
  return found;
}
