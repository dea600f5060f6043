import { loaded } from "@oaken/core/later";

/**
 * Loads what a worker computes with. Where that fails the worker fails as if it had not loaded itself, so that the page
 * hears of it and begins another.
 */
export async function ready(): Promise<void> {
  try {
    await loaded();
  } catch (e) {
    reportError(e);
    // Nothing that was asked of it is begun.
    await new Promise(() => {});
  }
}
