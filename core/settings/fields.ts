import { Problem } from "../problem.ts";
import { formatLength, parseLength } from "../units.ts";

/** A setting's value as documents keep it. */
export type Setting = number | string | boolean;
export type Settings = Record<string, Setting>;

/**
 * One setting, described once: the slip draws it, the schema checks it, the command line sets it, and `auto` gives its
 * value when nobody did. Lengths in mm, angles in degrees, shares 0…1.
 */
export interface Field<C = unknown> {
  key: string;
  label: string;
  type: "length" | "area" | "number" | "share" | "angle" | "feed" | "speed" | "choice" | "switch" | "text";
  /** what the term means, for those who do not know it */
  help?: string;
  min?: number;
  max?: number;
  step?: number;
  options?: readonly { value: string; label: string }[];
  /** of a text: one as a hand would set it */
  example?: string;
  /** of a text: throws a Problem where it cannot be read */
  check?(text: string): void;
  /** the stage's tool that sets it by hand */
  tool?: string;
  /** of a text: what the slip draws for it */
  drawn?: "curve" | "words" | "lines";
  /** of a curve: what it goes by, in a word; grey when not given */
  across?: string;
  /** folded away at first */
  more?: boolean;
  /** shown as a slider too */
  slider?: boolean;
  /** hidden where it means nothing */
  when?(settings: Settings): boolean;
  auto(context: C, settings: Settings): { value: Setting; reason: string };
  /** what the value leads to, shown beside it */
  consequence?(value: Setting, context: C, settings: Settings): string;
  /** of a feed: where its chip stands between rubbing and breaking */
  gauge?(value: Setting, context: C, settings: Settings): Gauge;
}

/** The chip that a feed makes, and between which a cutter cuts well, mm a tooth; the machine's largest feed, mm/min. */
export interface Gauge {
  value: number;
  rubs: number;
  usual: number;
  breaks: number;
  most: number;
}

export interface Resolved {
  value: Setting;
  reason: string;
  set: boolean;
  consequence?: string;
  gauge?: Gauge;
}

/**
 * Every field's value, the user's where there is one; in order, so that later automatic values may read earlier ones.
 */
export function resolve<C>(
  fields: readonly Field<C>[],
  own: Settings,
  context: C,
): { values: Settings; resolved: Record<string, Resolved> } {
  const values: Settings = {};
  const resolved: Record<string, Resolved> = {};
  for (const f of fields) {
    const auto = withinRange(f, f.auto(context, values));
    const set = own[f.key] !== undefined;
    values[f.key] = set ? own[f.key] : auto.value;
    resolved[f.key] = {
      value: values[f.key],
      reason: set ? `set by you; automatic would be ${showSetting(f, auto.value)}` : auto.reason,
      set,
    };
  }
  for (const f of fields) {
    if (f.consequence) resolved[f.key].consequence = f.consequence(values[f.key], context, values);
    if (f.gauge) resolved[f.key].gauge = f.gauge(values[f.key], context, values);
  }
  return { values, resolved };
}

/** An automatic value held to what the field takes: it may come from a machine or a cutter that says anything. */
function withinRange<C>(f: Field<C>, auto: { value: Setting; reason: string }): { value: Setting; reason: string } {
  if (typeof auto.value !== "number") return auto;
  const [least, most] = [f.min ?? -Infinity, f.max ?? Infinity];
  if (auto.value >= least && auto.value <= most) return auto;
  const value = auto.value < least ? least : most;
  return { value: Number.isFinite(value) ? value : 0, reason: `${auto.reason}; held to ${showSetting(f, value)}` };
}

/** Longest text a setting may hold. */
const MOST_TEXT = 200_000;

export function showSetting<C>(f: Field<C>, v: Setting): string {
  if (typeof v === "boolean") return v ? "on" : "off";
  if (typeof v === "string") return f.options?.find((o) => o.value === v)?.label ?? (v || "none");
  if (f.type === "length") return `${formatLength(v)} mm`;
  if (f.type === "area") return `${formatLength(v)} mm²`;
  if (f.type === "angle") return `${v}°`;
  if (f.type === "share") return `${Math.round(v * 100)} %`;
  return formatLength(v);
}

/** JSON Schema of a node's settings: each known key with its range, nothing else. */
export function settingsSchema(fields: readonly Field[]): object {
  const properties: Record<string, object> = {};
  for (const f of fields)
    properties[f.key] =
      f.type === "switch"
        ? { type: "boolean" }
        : f.type === "text"
          ? { type: "string", maxLength: MOST_TEXT }
          : f.type === "choice"
            ? { enum: f.options!.map((o) => o.value) }
            : {
                type: "number",
                ...(f.min !== undefined && { minimum: f.min }),
                ...(f.max !== undefined && { maximum: f.max }),
              };
  return { type: "object", properties, additionalProperties: false };
}

/**
 * A setting from text, as the command line and the slip's fields take it.
 * @throws Problem `bad-setting`
 */
export function parseSetting(f: Field, text: string, unit: "mm" | "in" = "mm"): Setting {
  const bad = (what: string) => new Problem("bad-setting", `${f.label}: ${what}`);
  if (f.type === "switch") {
    if (/^(on|true|yes|1)$/i.test(text)) return true;
    if (/^(off|false|no|0|none)$/i.test(text)) return false;
    throw bad(`"${text}" is neither on nor off.`);
  }
  if (f.type === "choice") {
    const found = f.options!.find((o) => o.value === text || o.label === text);
    if (!found) throw bad(`"${text}" is not one of ${f.options!.map((o) => o.value).join(", ")}.`);
    return found.value;
  }
  if (f.type === "text") {
    if (text.length > MOST_TEXT) throw bad(`the text is longer than ${MOST_TEXT} characters.`);
    f.check?.(text);
    return text;
  }
  let v: number;
  if (f.type === "length") v = parseLength(text, unit);
  else {
    const m = /^\s*(-?[\d.]+)\s*(°|deg|%|mm2|mm²|mm\/min|\/min)?\s*$/.exec(text.replace(/(\d),(?=\d{3}\b)/g, "$1"));
    if (!m || !Number.isFinite(Number(m[1]))) throw bad(`"${text}" is not a number.`);
    v = Number(m[1]) / (m[2] === "%" ? 100 : 1);
  }
  if (f.min !== undefined && v < f.min)
    throw bad(`${showSetting(f, v)} is less than the least, ${showSetting(f, f.min)}.`);
  if (f.max !== undefined && v > f.max)
    throw bad(`${showSetting(f, v)} is more than the most, ${showSetting(f, f.max)}.`);
  return v;
}
