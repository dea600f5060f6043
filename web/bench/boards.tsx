"use client";
import { Copy, Trash2 } from "lucide-react";
import { duplicateBoard, removeBoard } from "@oaken/core/job/boards";
import { MOST_BOARDS } from "@oaken/core/job/document";
import { Pick } from "../ui/pick.tsx";
import { TextField } from "../ui/text-field.tsx";
import { useActions, useBench, useParts } from "./context.tsx";

/** Changes which boards there are, and shows the stock of the one that is at hand then. */
export function useBoards() {
  const { changeWhole, select } = useActions();
  return (what: string, edit: Parameters<typeof changeWhole>[1]) => {
    changeWhole(what, edit);
    select("stock");
  };
}

const button = "btn w-full border-dashed !font-normal text-soft";
/** Whether there may be no more boards. */
export const useIsFull = () => useBench((s) => s.whole.boards.length >= MOST_BOARDS);

/** The board at hand among others: its name, once more, or one less. Nothing where it is the only one. */
export function BoardRows() {
  const { whole, doc } = useParts("whole", "doc");
  const { change } = useActions();
  const changeBoards = useBoards();
  const isFull = useIsFull();
  const { id, name } = doc.board;
  if (whole.boards.length === 1) return null;
  const remove = () =>
    changeBoards(`take out ${name}`, (d, board) => {
      const at = d.boards.findIndex((b) => b.id === board);
      removeBoard(d, board);
      return d.boards[Math.max(0, at - 1)].id;
    });
  return (
    <div className="grid gap-1.5 border-t border-line py-2.5">
      <label className="mb-1 flex min-h-[30px] items-center justify-between gap-2">
        <span className="font-semibold">Name</span>
        <TextField
          key={id}
          label="Name of the board"
          value={name}
          most={60}
          onTake={(said) => change("name of the board", (d) => void (d.board.name = said))}
          className="w-[172px] max-[1100px]:w-[140px]"
        />
      </label>
      <button className={button} disabled={isFull} onClick={() => changeBoards("duplicate the board", duplicateBoard)}>
        <Copy size={16} /> This board again, with its cuts
      </button>
      <button className={button} onClick={remove}>
        <Trash2 size={16} /> Take out this board
      </button>
    </div>
  );
}

/** Which board lies on the stage; nothing where there is only one. */
export function BoardPick() {
  const { whole, doc } = useParts("whole", "doc");
  const { showBoard } = useActions();
  if (whole.boards.length === 1) return null;
  return (
    <Pick
      label="Board"
      className="max-w-40"
      value={doc.board.id}
      options={whole.boards.map((b) => ({ value: b.id, label: b.name }))}
      onChange={showBoard}
    />
  );
}
