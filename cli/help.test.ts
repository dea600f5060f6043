import { describe, expect, it } from "vitest";
import { asksForHelp } from "./arguments.ts";
import { check, USAGE as CHECK } from "./check.ts";
import { feeds, USAGE as FEEDS } from "./feeds.ts";
import { parseMake, USAGE as MAKE } from "./options.ts";

const optionsIn = (usage: string): string[] => [...new Set([...usage.matchAll(/--[a-z][a-z-]*/g)].map(([o]) => o))];

/** What a command says against an option that is given without a value, or with one. */
async function said(run: (args: string[]) => unknown, args: string[]): Promise<string> {
  try {
    await run(args);
    return "";
  } catch (e) {
    return (e as Error).message;
  }
}

describe("--help", () => {
  const commands: [string, string, (args: string[]) => unknown][] = [
    ["make", MAKE, parseMake],
    ["check", CHECK, (args) => check(args, () => {})],
    ["feeds", FEEDS, (args) => feeds(args, () => {})],
  ];
  for (const [name, usage, run] of commands)
    it(`${name}: every option that it tells of is known, and nonsense is not`, async () => {
      const options = optionsIn(usage);
      expect(options.length).toBeGreaterThan(4);
      for (const option of options)
        for (const args of [[option], [option, "1"]]) expect(await said(run, args)).not.toMatch(/^Unknown option/);
      expect(await said(run, ["--nonsense"])).toBe(
        `Unknown option '--nonsense'. "oaken ${name} --help" lists what can be said.`,
      );
    });

  it("is asked for by either spelling", () => {
    expect(asksForHelp(["art.png", "--help"])).toBe(true);
    expect(asksForHelp(["-h"])).toBe(true);
    expect(asksForHelp(["help.png", "--out", "h"])).toBe(false);
  });
});
