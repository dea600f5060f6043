/**
 * A value equal to `after` in which every part that equals `before`'s is that very part: who looks at a part alone
 * sees that it has not changed. Plain values, arrays and objects, as documents are made of; what is undefined counts as
 * not there, as in the document that is saved.
 */
export function sharing<T>(before: unknown, after: T): T {
  if (before === after) return after;
  if (typeof before !== "object" || typeof after !== "object" || before === null || after === null) return after;
  if (Array.isArray(before) !== Array.isArray(after)) return after;
  const old = before as Record<string, unknown>;
  const parts = after as Record<string, unknown>;
  let isSame = !Array.isArray(after) || after.length === (before as unknown as unknown[]).length;
  for (const key of new Set([...Object.keys(old), ...Object.keys(parts)])) {
    if (parts[key] !== undefined) parts[key] = sharing(old[key], parts[key]);
    isSame &&= parts[key] === old[key];
  }
  return isSame ? (before as T) : after;
}
