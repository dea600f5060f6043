import { feedsFor, usualStepdown } from "@oaken/core/cutters/feeds";
import { plasmaFor } from "@oaken/core/cutters/plasma";
import { type Cutter, describeCutter } from "@oaken/core/cutters/profile";
import { FORMS, parseCutter } from "@oaken/core/cutters/rack";
import { usualStepover } from "@oaken/core/cuts/fields";
import { Problem } from "@oaken/core/problem";
import type { Reasoned } from "@oaken/core/reasoned";
import { FIRST_SHOP } from "@oaken/core/shop/first/shop";
import { machineIn, materialIn } from "@oaken/core/shop/shop";
import { formatLength } from "@oaken/core/units";
import { readArguments, seeHelp } from "./arguments.ts";
import { positive } from "./values.ts";

export const USAGE = `oaken feeds --cutter SPEC --material ID [--machine ID] [--depth MM] [--width MM] [--json]
  feed, plunge, spindle speed and stepdown of a cutter in a material, each with its reason
  --cutter SPEC    ${FORMS}, or an id of the rack
  --depth MM       of one pass; of a torch, the sheet's thickness; as deep as the material allows when not given
  --width MM       taken sideways; the usual stepover when not given`;

/** Deepest and widest that anyone cuts at once, mm. */
const MOST = 500;
/** Sheet that a torch cuts where nothing else is said, mm. */
const USUAL_SHEET = 3;

/** Runs `oaken feeds`: prints the numbers that a cut would begin with. @returns 0; bad input throws a Problem */
export function feeds(args: string[], print: (line: string) => void): number {
  const text = { type: "string" } as const;
  const parsed = readArguments("feeds", {
    args,
    options: { cutter: text, material: text, machine: text, depth: text, width: text, json: { type: "boolean" } },
  });
  const v = parsed.values;
  if (!v.cutter || !v.material)
    throw new Problem(
      "usage",
      `Name a cutter and a material, with --cutter SPEC and --material ID. ${seeHelp("feeds")}`,
    );
  const cutter = parseCutter(v.cutter, FIRST_SHOP.cutters);
  const given = {
    depth: v.depth === undefined ? undefined : positive("--depth", v.depth, MOST),
    width: v.width === undefined ? undefined : positive("--width", v.width, MOST),
  };
  const numbers =
    cutter.kind === "torch"
      ? torchNumbers(v.material, given.depth ?? USUAL_SHEET)
      : cutterNumbers(cutter, v.material, v.machine, given);
  if (v.json) print(JSON.stringify({ cutter: describeCutter(cutter), material: v.material, ...numbers }));
  else for (const [name, unit] of Object.entries(UNITS)) if (numbers[name]) print(line(name, numbers[name], unit));
  return 0;
}

/** Every number that may be printed, in its order, with its unit. */
const UNITS: Record<string, string> = {
  feed: "mm/min",
  plunge: "mm/min",
  spindle: "/min",
  stepdown: "mm",
  depth: "mm",
  width: "mm",
  pierceHeight: "mm",
  pierceDelay: "s",
  cutHeight: "mm",
};
const line = (name: string, { value, reason }: Reasoned, unit: string): string => {
  const words = name.replace(/[A-Z]/g, (c) => ` ${c.toLowerCase()}`);
  return `${words}: ${formatLength(value)} ${unit} — ${reason}`;
};

function cutterNumbers(
  cutter: Cutter,
  materialId: string,
  machineId: string | undefined,
  given: { depth?: number; width?: number },
): Record<string, Reasoned> {
  const material = materialIn(FIRST_SHOP, materialId);
  const machine = machineIn(FIRST_SHOP, machineId ?? FIRST_SHOP.machines[0].id);
  const stepdown = usualStepdown({ cutter, material });
  const asGiven = (value: number | undefined, usual: Reasoned): Reasoned =>
    value === undefined ? usual : { value, reason: "as given" };
  const depth = asGiven(given.depth, stepdown);
  const width = asGiven(given.width, usualStepover(cutter, material));
  const { feed, plunge, spindle } = feedsFor({ cutter, material, machine }, { depth: depth.value, width: width.value });
  return { feed, plunge, spindle, stepdown, depth, width };
}

function torchNumbers(materialId: string, thickness: number): Record<string, Reasoned> {
  const { kerf: _asMeasured, ...numbers } = plasmaFor(materialIn(FIRST_SHOP, materialId), thickness);
  return numbers;
}
