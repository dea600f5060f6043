import { fieldsFor } from "../../settings/list.ts";
import { formatLength } from "../../units.ts";
import type { BoardSize } from "../kind.ts";

/** Settings that several surfaces share. */
interface OnBoard {
  board: BoardSize;
}

/** Share of the stock's thickness that a surface takes by itself, and the most of it, mm. */
const USUAL_SHARE = 1 / 3;
const USUAL_MOST = 5;

/** @param help from where to where the depth is measured */
export const depthField = (help: string) =>
  fieldsFor<OnBoard>().length("depth", "Depth", {
    help,
    min: 0.05,
    max: 200,
    step: 0.1,
    slider: true,
    auto: ({ board: { thickness } }) => ({
      value: Math.round(Math.min(USUAL_MOST, thickness * USUAL_SHARE) * 10) / 10 || 0.1,
      reason: `a third of the stock, at most ${USUAL_MOST} mm`,
    }),
    consequence: (v, { board }) => `${formatLength(v)} of ${formatLength(board.thickness)} mm`,
  });

/** @param reason why it is nought by itself */
export const topField = (help: string, reason: string) =>
  fieldsFor<OnBoard>().length("top", "Top below the stock", {
    help,
    min: 0,
    max: 200,
    step: 0.1,
    auto: () => ({ value: 0, reason }),
  });

export const sheetField = fieldsFor<OnBoard>().length("sheet", "Sheet", {
  help: "How thick the sheet is.",
  min: 0.1,
  max: 500,
  step: 0.05,
  more: true,
  auto: ({ board }) => ({ value: board.thickness, reason: "the board's thickness as measured" }),
});
