import { copyOf } from "../copy.ts";
import { formatLength } from "../units.ts";
import type { JobDocument, JobMaking, StartRules } from "./document.ts";

/** What a starting job may leave open, in words. */
export const OPEN = {
  picture: "the picture and its tone and outline",
  size: "the size",
  text: "the words of its lettering",
} as const;

/** Settings of a picture that say how large it is and where it lies; the others are about what is seen of it. */
const SIZES: readonly string[] = ["width", "measured", "x", "y"];
/** Kinds of making that follow the picture. */
const PICTURE_KINDS: readonly string[] = ["picture", "tone", "outline", "height", "litho"];

/** A making without what is open: what is left may not change. */
function lockedMaking(making: JobMaking, open: StartRules["open"]): JobMaking {
  const m = copyOf(making);
  if (m.kind === "lettering" && open.includes("text")) delete m.settings.text;
  if (!PICTURE_KINDS.includes(m.kind)) return m;
  if (open.includes("picture")) {
    delete m.asset;
    m.name = "";
  }
  for (const key of Object.keys(m.settings)) {
    const isSize = m.kind === "picture" && SIZES.includes(key);
    if (open.includes(isSize ? "size" : "picture")) delete m.settings[key];
  }
  return m;
}

/** The parts of a job that its starting job may lock, by what they are called. */
function lockedParts(doc: JobDocument, { open }: StartRules): Record<string, unknown> {
  return {
    "the stock, its zero and its clamps": doc.boards.map((b) => b.stock),
    "the cuts, with their cutters, depths and feeds": doc.boards.map((b) => [b.id, b.name, b.cuts, b.cell]),
    "the machine and how its programs are written": [doc.machine, doc.dialect, doc.drawing, doc.naming?.pattern],
    "what the piece is made from": doc.makings.map((m) => lockedMaking(m, open)),
    "its starting job": doc.begun,
  };
}

/** The width of a job's picture, mm; undefined where it is automatic. */
const widthOf = (doc: JobDocument): number | undefined => {
  const width = doc.makings.find((m) => m.kind === "picture")?.settings.width;
  return typeof width === "number" ? width : undefined;
};

/**
 * Why a change of a job that was begun from a starting job is not allowed, as a sentence; null where it is, or where
 * nothing is locked.
 */
export function lockFault(before: JobDocument, after: JobDocument): string | null {
  const { begun } = before;
  if (!begun) return null;
  const [was, is] = [lockedParts(before, begun.rules), lockedParts(after, begun.rules)];
  const other = Object.keys(was).find((k) => JSON.stringify(was[k]) !== JSON.stringify(is[k]));
  if (other) return `The starting job "${begun.name}" locks ${other}. Open is ${openWords(begun.rules)}.`;
  const width = widthOf(after);
  const { least, most } = begun.rules;
  const isOutside = width !== undefined && (width < (least ?? 0) || width > (most ?? Infinity));
  if (!isOutside) return null;
  return (
    `The picture would be ${formatLength(width)} mm wide; the starting job "${begun.name}" allows ` +
    `${formatLength(least ?? 0)} to ${most === undefined ? "any" : formatLength(most)} mm.`
  );
}

/** What a job leaves open by itself, when others are to begin from it: the picture, and the words. */
export const usuallyOpen = ({ makings }: JobDocument): StartRules["open"] => [
  ...(makings.some((m) => m.asset) ? (["picture"] as const) : []),
  ...(makings.some((m) => m.kind === "lettering") ? (["text"] as const) : []),
];

/** Whether a starting job leaves a making's setting open, or a making as a whole where no setting is named. */
export function isOpen({ open }: StartRules, { kind }: JobMaking, key?: string): boolean {
  if (kind === "lettering") return key === "text" && open.includes("text");
  const isSize = kind === "picture" && key !== undefined && SIZES.includes(key);
  return PICTURE_KINDS.includes(kind) && open.includes(isSize ? "size" : "picture");
}

/** What is open, in words. */
export const openWords = ({ open }: StartRules): string =>
  open.length === 0 ? "nothing" : open.map((o) => OPEN[o]).join(", and ");

/**
 * A person's own job from a starting job: everything as it is there, and what is locked told.
 * @param who their name and class; the size of their own stock where it was measured, mm
 */
export function begunFrom(
  id: string,
  start: JobDocument,
  who: { person: string; class?: string; stock?: { width: number; height: number; thickness: number } },
): JobDocument {
  const doc = copyOf(start);
  const rules = doc.start ?? { open: [] };
  delete doc.start;
  const picture = doc.makings.find((m) => m.asset)?.asset?.sha;
  doc.begun = { id, name: start.name, rules, ...(picture && { picture }) };
  doc.name = `${start.name}, ${who.person}`.slice(0, MOST_NAME);
  doc.naming = { ...doc.naming, person: who.person, ...(who.class && { class: who.class }) };
  if (who.stock) Object.assign(doc.boards[0].stock, who.stock);
  return doc;
}
const MOST_NAME = 200;

/** Whether a job that was begun from a starting job has the picture that it is to have: a person's own, where open. */
export const hasOwnPicture = ({ begun, makings }: JobDocument): boolean =>
  !begun || !begun.rules.open.includes("picture") || makings.some((m) => m.asset && m.asset.sha !== begun.picture);

/** Puts a picture in place of the first one. */
export function setPicture(doc: JobDocument, asset: NonNullable<JobMaking["asset"]>): void {
  const making = doc.makings.find((m) => m.asset);
  if (!making) return;
  making.asset = asset;
  making.name = asset.name.slice(0, MOST_NAME);
}
