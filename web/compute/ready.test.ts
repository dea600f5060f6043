import { afterEach, expect, it, vi } from "vitest";
import { later } from "@oaken/core/later";
import { ready } from "./ready.ts";

afterEach(() => vi.unstubAllGlobals());

it("where the work cannot be loaded the worker fails and begins nothing; else it is ready", async () => {
  const said: unknown[] = [];
  vi.stubGlobal("reportError", (e: unknown) => said.push(e));
  let isThere = false;
  const wrong = new Error("lost on the way");
  const work = later(async () => {
    if (!isThere) throw wrong;
    return { answer: () => 42 };
  });
  const state = () => Promise.race([ready().then(() => "ready"), new Promise((r) => setTimeout(r, 20, "waits"))]);
  expect(await state()).toBe("waits");
  expect(said).toEqual([wrong]);
  expect(work("answer")).toThrow(/before it was loaded/);
  isThere = true;
  expect(await state()).toBe("ready");
  expect(work("answer")()).toBe(42);
});
