/** Something that the server sent along with a page. */
export interface Served<T> {
  /** its own name */
  token: string;
  value: T;
}

const taken = new Set<string>();

/**
 * What came with a page, once: who goes back to a page is shown it as it was sent, long after it changed.
 * @returns null where there is nothing, or nothing new
 */
export function takeServed<T>(served: Served<T> | null): T | null {
  if (!served || taken.has(served.token)) return null;
  taken.add(served.token);
  return served.value;
}
