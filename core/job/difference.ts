import { cutKind } from "../cuts/register.ts";
import { describeCutter } from "../cutters/profile.ts";
import { makingKind } from "../makings/register.ts";
import { type Field, type Settings, showSetting } from "../settings/fields.ts";
import { formatLength } from "../units.ts";
import { type Board, type JobDocument, stopWords, zeroWords } from "./document.ts";

/** Longest value that is told as it is, letters: a list of points says nothing to anyone. */
const MOST_LETTERS = 40;

/**
 * What changed from one state of a job to another, a line each: "Carve: floor 3 mm → 4 mm". What only the look of the
 * job is about is left out.
 */
export function differences(before: JobDocument, after: JobDocument): string[] {
  const out: string[] = [];
  const tell = (what: string, from: string, to: string) => from !== to && out.push(`${what} ${from} → ${to}`);
  tell("name", before.name, after.name);
  tell("machine", before.machine.name, after.machine.name);
  tell("dialect", before.dialect.name, after.dialect.name);
  out.push(
    ...parts(before.makings, after.makings, (a, b, name) => [
      ...settings(makingKind(b.kind).fields, a.settings, b.settings).map((s) => `${name}: ${s}`),
      ...(a.asset?.sha === b.asset?.sha ? [] : [`${name}: another file`]),
    ]),
  );
  const several = after.boards.length > 1;
  out.push(
    ...parts(before.boards, after.boards, (a, b, name) =>
      boardDifferences(a, b).map((s) => (several ? `${name}: ${s}` : s)),
    ),
  );
  return out;
}

/** What came, what went, and what is other in what stayed. */
function parts<T extends { id: string; name: string }>(
  before: readonly T[],
  after: readonly T[],
  differ: (a: T, b: T, name: string) => string[],
): string[] {
  const gone = before.filter((a) => !after.some((b) => b.id === a.id));
  return [
    ...gone.map((a) => `${a.name} taken out`),
    ...after.flatMap((b) => {
      const a = before.find((p) => p.id === b.id);
      return a ? differ(a, b, b.name) : [`${b.name} added`];
    }),
  ];
}

function boardDifferences(a: Board, b: Board): string[] {
  const out: string[] = [];
  const tell = (what: string, from: string, to: string) => from !== to && out.push(`${what} ${from} → ${to}`);
  for (const key of ["width", "height", "thickness", "margin"] as const)
    tell(`stock ${key}`, `${formatLength(a.stock[key])} mm`, `${formatLength(b.stock[key])} mm`);
  tell("material", a.stock.material.name, b.stock.material.name);
  tell("work zero", zeroWords(a.stock.zero), zeroWords(b.stock.zero));
  tell("paint", a.stock.paint ?? "bare", b.stock.paint ?? "bare");
  tell("clamps", String(a.stock.clamps?.length ?? 0), String(b.stock.clamps?.length ?? 0));
  if (out.length === 0 && JSON.stringify(a.stock.clamps) !== JSON.stringify(b.stock.clamps)) out.push("clamps moved");
  out.push(
    ...parts(a.cuts, b.cuts, (c, d, name) => {
      const own: string[] = [];
      const say = (what: string, from: string, to: string) => from !== to && own.push(`${what} ${from} → ${to}`);
      say("cutter", describeCutter(c.cutter), describeCutter(d.cutter));
      say("", c.on ? "on" : "off", d.on ? "on" : "off");
      say("stop", c.stop ? stopWords(c.stop) : "none", d.stop ? stopWords(d.stop) : "none");
      own.push(...settings(cutKind(d.kind).fields as readonly Field[], c.settings, d.settings));
      return own.map((s) => `${name}: ${s.trim()}`);
    }),
  );
  const order = (cuts: Board["cuts"]) => cuts.filter((c) => [a, b].every((q) => q.cuts.some((d) => d.id === c.id)));
  const ids = (cuts: Board["cuts"]) =>
    order(cuts)
      .map((c) => c.id)
      .join();
  if (ids(a.cuts) !== ids(b.cuts))
    out.push(
      `order of cuts now ${order(b.cuts)
        .map((c) => c.name)
        .join(", ")}`,
    );
  return out;
}

/** Settings that a person set otherwise; those that nobody set are automatic. */
function settings(fields: readonly Field<never>[], a: Settings, b: Settings): string[] {
  return (fields as readonly Field[]).flatMap((f) => {
    if (a[f.key] === b[f.key]) return [];
    const show = (v: Settings[string] | undefined) => (v === undefined ? "automatic" : showSetting(f, v));
    const [from, to] = [show(a[f.key]), show(b[f.key])];
    const label = f.label.toLowerCase();
    if (from.length > MOST_LETTERS || to.length > MOST_LETTERS) return [`${label} changed`];
    return [`${label} ${from} → ${to}`];
  });
}
