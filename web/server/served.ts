import { randomUUID } from "node:crypto";
import { Problem } from "@oaken/core/problem";
import type { Served } from "../ui/served.ts";

/** What a page needs first, sent along with it; null where the page has to ask, and is told why there is nothing. */
export async function served<T>(work: Promise<T>): Promise<Served<T> | null> {
  try {
    return { token: randomUUID(), value: await work };
  } catch (e) {
    if (e instanceof Problem) return null;
    throw e;
  }
}
