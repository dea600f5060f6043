import type { MakingKind } from "./kind.ts";
import { combine } from "./combine/combine.ts";
import { height } from "./height/height.ts";
import { imported } from "./import/import.ts";
import { litho } from "./litho/litho.ts";
import { outline } from "./outline/outline.ts";
import { picture } from "./picture/picture.ts";
import { solid } from "./solid/solid.ts";
import { tone } from "./tone/tone.ts";
import { Problem } from "../problem.ts";

/** Every kind of making; one line each. */
export const MAKINGS: readonly MakingKind[] = [picture, tone, outline, imported, combine, height, litho, solid];

/** @throws Problem `unknown-making` */
export function makingKind(kind: string): MakingKind {
  const found = MAKINGS.find((m) => m.kind === kind);
  if (!found) throw new Problem("unknown-making", `"${kind}" is a step that this version does not know.`);
  return found;
}
