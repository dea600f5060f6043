import { Problem } from "@oaken/core/problem";
import { asksForHelp } from "./arguments.ts";
import { check, USAGE as CHECK } from "./check.ts";
import { feeds, USAGE as FEEDS } from "./feeds.ts";
import { make } from "./make.ts";
import { USAGE as MAKE } from "./options.ts";
import { outline } from "./outline.ts";

/** What there is to run, each with what it takes in words; outline takes what make does, as far as it serves. */
const COMMANDS = {
  make: { run: make, usage: MAKE },
  outline: { run: outline, usage: MAKE },
  check: { run: check, usage: CHECK },
  feeds: { run: feeds, usage: FEEDS },
};

const print = (line: string) => console.log(line);
const [command, ...rest] = process.argv.slice(2);
try {
  const { run, usage } = COMMANDS[command as keyof typeof COMMANDS];
  if (asksForHelp(rest)) print(usage);
  else process.exitCode = await run(rest, print);
} catch (e) {
  if (!(e instanceof Problem)) throw e;
  console.error(e.message);
  process.exitCode = 2;
}
