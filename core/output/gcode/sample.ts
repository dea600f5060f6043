import { parseCutter } from "../../cutters/rack.ts";
import { ToolpathWriter } from "../../toolpath/toolpath.ts";
import type { Dialect } from "./dialect.ts";
import { type ProgramCut, writePrograms } from "./writer.ts";

/** Feeds of the sample, mm/min. */
const FEED = 1800;
const PLUNGE = 600;
const RAPID_RATE = 5000;

/** A slot with round ends, and a hole bored beside it. */
function sampleCuts(): ProgramCut[] {
  const slot = new ToolpathWriter(FEED, PLUNGE, RAPID_RATE);
  slot.above(20, 20);
  slot.plunge(-2);
  slot.to(60, 20, -2);
  slot.arc(true, 60, 30, 60, 40, -2);
  slot.to(20, 40, -2);
  slot.arc(true, 20, 30, 20, 20, -2);
  slot.lift();
  const bore = new ToolpathWriter(FEED, PLUNGE, RAPID_RATE);
  bore.above(84, 30);
  bore.arc(true, 80, 30, 76, 30, -1);
  bore.arc(true, 80, 30, 84, 30, -2);
  bore.arc(true, 80, 30, 76, 30, -2);
  bore.lift();
  return [
    { name: "Slot", cutter: parseCutter("flat:6"), spindle: 18000, toolpath: slot.take() },
    { name: "Bore", cutter: parseCutter("flat:3"), spindle: 24000, toolpath: bore.take(), stop: "Look at it" },
  ];
}

/**
 * A short program as a dialect writes it, so that what its figures do is seen at once.
 * @throws Problem where it could not be written so
 */
export const sampleProgram = (dialect: Dialect): string =>
  writePrograms(
    sampleCuts(),
    dialect,
    { x: 0, y: 0, z: 0 },
    { job: "Sample", zero: "front left corner", from: "sample" },
  )
    .map((p) => p.text)
    .join("\n");
