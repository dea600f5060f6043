/** A 106-bit name for a text (two rounds of cyrb53 by bryc, public domain): for keys, not for security. */
export function named(text: string): string {
  return cyrb53(text, 0x9e37).toString(36) + cyrb53(text, 0x85eb).toString(36);
}

function cyrb53(text: string, seed: number): number {
  let a = 0xdeadbeef ^ seed;
  let b = 0x41c6ce57 ^ seed;
  for (let i = 0; i < text.length; i++) {
    const c = text.charCodeAt(i);
    a = Math.imul(a ^ c, 2654435761);
    b = Math.imul(b ^ c, 1597334677);
  }
  a = Math.imul(a ^ (a >>> 16), 2246822507) ^ Math.imul(b ^ (b >>> 13), 3266489909);
  b = Math.imul(b ^ (b >>> 16), 2246822507) ^ Math.imul(a ^ (a >>> 13), 3266489909);
  return 4294967296 * (2097151 & b) + (a >>> 0);
}

/** Keys of large things: what was kept is known by what it was made from, the rest as itself. */
const keys = new WeakMap<object, string>();
let strangers = 0;

/**
 * The key of a value: the same for what is equal. Plain values and objects of them are known by their contents; a
 * result of {@link Kept.of} by what it was made from; arrays of numbers that came from elsewhere as themselves.
 * @throws TypeError for a function: its result may hang on anything
 */
export function keyOf(value: unknown): string {
  if (typeof value === "function") throw new TypeError("A function cannot be part of a key.");
  if (typeof value !== "object" || value === null) return typeof value === "number" ? `${value}` : plain(value);
  const known = keys.get(value);
  if (known) return known;
  if (ArrayBuffer.isView(value)) {
    const key = `~${strangers++}`;
    keys.set(value, key);
    return key;
  }
  if (Array.isArray(value)) return `[${value.map(keyOf).join()}]`;
  const entries = Object.entries(value).filter(([, v]) => v !== undefined);
  return `{${entries.map(([k, v]) => `${JSON.stringify(k)}:${keyOf(v)}`).join()}}`;
}

const plain = (v: unknown): string => (v === undefined ? "undefined" : JSON.stringify(v));

/** Names a large thing that came from outside, a picture by its file: its like is then known again. */
export function nameAs<T extends object>(thing: T, name: string): T {
  if (!keys.has(thing)) keys.set(thing, named(name));
  return thing;
}

/**
 * Keeps results of pure work under keys derived from exactly what the work is given: nobody writes a key by hand, so
 * none can forget a part. Holds the newest of each kind, so that going back and forth between two settings costs
 * nothing and memory stays bounded.
 */
export class Kept {
  private kinds = new Map<string, Map<string, unknown>>();
  constructor(private most = 4) {}

  /**
   * What `work` makes of `from`, made only when it is not kept. Work may use besides what does not change its result:
   * progress, and this itself.
   * @param what names the work: one name, one function
   */
  of<A extends readonly unknown[], T>(
    what: string,
    from: readonly [...A],
    work: (...from: A) => T,
    most = this.most,
  ): T {
    const key = named(from.map(keyOf).join("|"));
    let kind = this.kinds.get(what);
    if (!kind) this.kinds.set(what, (kind = new Map()));
    if (kind.has(key)) {
      const value = kind.get(key) as T;
      kind.delete(key);
      kind.set(key, value);
      return value;
    }
    const value = work(...from);
    if (typeof value === "object" && value !== null) nameAs(value, `${what}|${key}`);
    kind.set(key, value);
    while (kind.size > most) kind.delete(kind.keys().next().value!);
    return value;
  }
}
