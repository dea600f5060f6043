/** A 106-bit name for a text (two rounds of cyrb53 by bryc, public domain): cache keys, not security. */
export function hash(text: string): string {
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

/**
 * Keeps derived results under a hash of exactly what they came from. Holds the newest `keep` of each kind, so that
 * going back and forth between two settings costs nothing and memory stays bounded.
 */
export class Derived {
  private kinds = new Map<string, Map<string, unknown>>();
  constructor(private keep = 4) {}
  /** The result of `make` for this key, made only when it is not there yet. `fresh` tells whether it was made now. */
  get<T>(kind: string, key: string, make: () => T, keep = this.keep): T {
    let m = this.kinds.get(kind);
    if (!m) this.kinds.set(kind, (m = new Map()));
    if (m.has(key)) {
      const v = m.get(key) as T;
      m.delete(key);
      m.set(key, v);
      return v;
    }
    const v = make();
    m.set(key, v);
    while (m.size > keep) m.delete(m.keys().next().value!);
    return v;
  }
}
