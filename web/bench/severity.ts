import { Info, OctagonX, TriangleAlert } from "lucide-react";

/** How findings of each severity look. */
export const LOOK = {
  stop: { Icon: OctagonX, colour: "text-danger", word: "stops" },
  warning: { Icon: TriangleAlert, colour: "text-amber", word: "warning" },
  note: { Icon: Info, colour: "text-soft", word: "note" },
};
