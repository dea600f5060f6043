import { Problem } from "../../problem.ts";

/** Letters that stand for others where only plain ones may. */
const PLAIN: Record<string, string> = {
  ß: "ss",
  æ: "ae",
  œ: "oe",
  ø: "o",
  ð: "d",
  đ: "d",
  þ: "th",
  ł: "l",
  ı: "i",
};

/** Text without marks on its letters: what has no plain letter stays as it is. */
export const plainLetters = (text: string): string =>
  text
    .normalize("NFKD")
    .replace(/[\u0300-\u036f]/g, "")
    .replace(/[ßæøðþłđœı]/gi, (c) => {
      const plain = PLAIN[c.toLowerCase()];
      return c === c.toLowerCase() ? plain : plain.toUpperCase();
    });

/** A file name that every controller reads: lower-case letters, digits and dashes. */
export function fileName(text: string, most = 60): string {
  return (
    plainLetters(text)
      .toLowerCase()
      .replace(/°/g, "")
      .replace(/[^a-z0-9.]+/g, "-")
      .replace(/^[-.]+|[-.]+$/g, "")
      .slice(0, most)
      .replace(/[-.]+$/, "") || "job"
  );
}

/** What a pattern of file names may hold, in curly brackets. */
export interface NameParts {
  number: string;
  job: string;
  cut: string;
  cutter: string;
  person?: string;
  class?: string;
  date?: string;
}
const PARTS = ["number", "job", "cut", "cutter", "person", "class", "date"] as const;

/** How programs are named when nothing else is said. */
export const USUAL_PATTERN = "{number}-{job} {cut} {cutter}";

/** @throws Problem `bad-pattern` */
export function checkPattern(pattern: string): void {
  if (pattern.trim() === "") throw new Problem("bad-pattern", "The pattern of file names is empty.");
  for (const [, name] of pattern.matchAll(/\{([^}]*)\}/g))
    if (!PARTS.includes(name as never))
      throw new Problem(
        "bad-pattern",
        `{${name.slice(0, 20)}} is not known in a pattern of file names. Known: ` +
          `${PARTS.map((p) => `{${p}}`).join(", ")}.`,
      );
}

/**
 * The names of files after a pattern, cleaned; never two alike: the later one gets its number behind.
 * @param most letters that a controller shows, with the point and the extension
 */
export function programNames(
  pattern: string,
  parts: readonly NameParts[],
  extension: string,
  most = 60 + 1 + extension.length,
): string[] {
  const room = Math.max(4, most - extension.length - 1);
  const taken = new Set<string>();
  return parts.map((p) => {
    const filled = pattern.replace(/\{([^}]*)\}/g, (_, name: string) => p[name as keyof NameParts] ?? "");
    let name = fileName(filled, room);
    for (let n = 2; taken.has(name); n++) name = `${fileName(filled, room - `-${n}`.length)}-${n}`;
    taken.add(name);
    return `${name}.${extension}`;
  });
}
