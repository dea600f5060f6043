/** What the keyboard does, as the help shows it. */
export const KEYS: readonly (readonly [string, string])[] = [
  ["Ctrl Z", "undo"],
  ["Ctrl Shift Z", "redo"],
  ["Ctrl S", "save now (saving is automatic)"],
  ["Space", "play or pause the cutting"],
  ["F", "show the whole stock"],
  ["T", "straight above, or tilted"],
  ["1 … 4", "show or hide picture, outline, paths, proof"],
  ["U", "millimetres or inches"],
  ["W", "write programs, or back to the bench"],
  ["Arrows + −", "move and zoom the stage when it has the focus"],
  ["↑ ↓ in a field", "step its value; Shift for ten steps, Alt for a tenth"],
  ["?", "this list"],
];
