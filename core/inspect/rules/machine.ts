import { zeroWords } from "../../job/document.ts";
import { plainLetters } from "../../output/gcode/names.ts";
import { travelHeight } from "../../toolpath/over.ts";
import { isTravel, moveCount, type Toolpath } from "../../toolpath/toolpath.ts";
import { formatLength } from "../../units.ts";
import type { Finding, Rule } from "../finding.ts";

/** Cuts that reach farther than the machine travels, wherever on its bed the stock lies. */
export const machineTravel: Rule = ({ build }) => {
  const { machine, stock } = build.job;
  const on = build.cuts.filter((c) => c.cut.on && c.toolpath.kind.length > 0);
  if (on.length === 0) return [];
  const most = (of: (f: (typeof on)[number]["figures"]) => number) => Math.max(...on.map((c) => of(c.figures)));
  const least = (of: (f: (typeof on)[number]["figures"]) => number) => Math.min(...on.map((c) => of(c.figures)));
  const needs = [
    { axis: "X", needs: most((f) => f.maxX) - least((f) => f.minX), has: machine.travelX },
    { axis: "Y", needs: most((f) => f.maxY) - least((f) => f.minY), has: machine.travelY },
    { axis: "Z", needs: travelHeight(stock.clamps) - least((f) => f.minZ), has: machine.travelZ },
  ];
  return needs
    .filter((n) => n.has !== undefined && n.needs > n.has)
    .map((n): Finding => ({
      code: "outside-travel",
      severity: "stop",
      message:
        `The cuts need ${formatLength(n.needs)} mm along ${n.axis}; the ${machine.name.toLowerCase()} travels ` +
        `${formatLength(n.has!)} mm. It would run against its end. Make the piece smaller or take another machine.`,
    }));
};

/** A work zero elsewhere than where this machine's operator usually sets it. */
export const zeroHabit: Rule = ({ build }) => {
  const { machine, stock } = build.job;
  if (machine.zero === undefined || machine.zero === stock.zero) return [];
  return [
    {
      code: "unusual-zero",
      severity: "note",
      message:
        `The work zero is the ${zeroWords(stock.zero)}; on the ${machine.name.toLowerCase()} it is usually the ` +
        `${zeroWords(machine.zero)}. Set at the wrong place everything is cut there. Check before starting.`,
    },
  ];
};

/** Programs longer than the machine's controller takes, or than the dialect parts them: it parts them at lifts only. */
export const programLength: Rule = ({ build }) => {
  const { machine, dialect } = build.job;
  const on = build.cuts.filter((c) => c.cut.on);
  const taken = machine.mostLines ?? Infinity;
  const parted = dialect.mostLines ?? Infinity;
  if (parted > taken)
    return on
      .filter((c) => moveCount(c.toolpath) > taken)
      .map((c) =>
        tooLong(
          c.id,
          `${c.cut.name} takes about ${moveCount(c.toolpath)} lines; the controller of the ` +
            `${machine.name.toLowerCase()} takes ${taken}. Choose a dialect that splits programs at ${taken} lines ` +
            "or fewer.",
        ),
      );
  if (parted === Infinity) return [];
  return on
    .map((c) => ({ c, stroke: longestStroke(c.toolpath) }))
    .filter(({ stroke }) => stroke > parted)
    .map(({ c, stroke }) =>
      tooLong(
        c.id,
        `${c.cut.name} goes on for about ${stroke} lines without a lift, and programs are split at lifts only: one ` +
          `file is longer than the ${parted} lines asked for. See that the controller takes it, or make the art ` +
          "simpler.",
      ),
    );
};

const tooLong = (cut: string, message: string): Finding => ({
  code: "program-too-long",
  severity: "warning",
  message,
  cut,
});

/** Moves of the longest stretch between two lifts. */
function longestStroke(t: Toolpath): number {
  let [longest, from] = [0, 0];
  for (let i = 1; i <= moveCount(t); i++) {
    if (i < moveCount(t) && !isTravel(t, i)) continue;
    longest = Math.max(longest, i - from);
    from = i;
  }
  return longest;
}

/** Names whose letters no controller shows: they are left out of the names of files. */
export const nameLetters: Rule = ({ build }) => {
  const { name, naming } = build.job;
  const lost = [name, naming?.person, naming?.class].filter(
    (text) => text !== undefined && /[^\x00-\x7f]/.test(plainLetters(text).replace(/[^\p{L}\p{N}]/gu, "")),
  );
  return lost.map((text) => ({
    code: "name-letters",
    severity: "note",
    message:
      `"${text}" has letters that controllers do not show; the files' names leave them out. Write it in plain ` +
      "letters if the files are told apart by it.",
  }));
};

/** Pieces so small that they drop between the slats that the sheet lies on, or tip up on one. */
export const betweenSlats: Rule = ({ build }) => {
  const { slatGap } = build.job.machine;
  if (slatGap === undefined) return [];
  return build.cuts
    .filter((c) => c.cut.on && c.freed?.heldBy === "slats" && (c.freed.smallest ?? Infinity) < slatGap)
    .map((c): Finding => ({
      code: "between-slats",
      severity: "note",
      message:
        `${c.cut.name} frees pieces down to ${formatLength(c.freed!.smallest!)} mm long; the slats of the ` +
        `${build.job.machine.name.toLowerCase()} lie ${formatLength(slatGap)} mm apart. They drop between them, or ` +
        "tip up into the torch's way.",
      cut: c.id,
    }));
};
