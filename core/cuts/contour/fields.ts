import { fieldsFor } from "../../settings/list.ts";
import type { CutContext } from "../kind.ts";

/** Which side of the shapes a contour cut runs on. */
export const sideField = (reason: string) =>
  fieldsFor<CutContext>().choice("side", "Cut", {
    options: [
      { value: "outside", label: "outside" },
      { value: "inside", label: "inside" },
      { value: "on", label: "on the line" },
    ],
    help:
      "Outside: the ink is the part; its outsides are cut round and its holes from within. Inside: the ink is the " +
      "opening; what lies round it is the part. On the line: the cutter's middle follows the outline.",
    auto: () => ({ value: "outside", reason }),
  });
