import { Problem } from "@oaken/core/problem";
import { check } from "./check.ts";
import { feeds } from "./feeds.ts";
import { make } from "./make.ts";
import { USAGE } from "./options.ts";
import { outline } from "./outline.ts";

const [command, ...rest] = process.argv.slice(2);
try {
  if (command === "make") process.exitCode = await make(rest, (line) => console.log(line));
  else if (command === "check") process.exitCode = await check(rest, (line) => console.log(line));
  else if (command === "outline") process.exitCode = await outline(rest, (line) => console.log(line));
  else if (command === "feeds") process.exitCode = feeds(rest, (line) => console.log(line));
  else throw new Problem("usage", USAGE);
} catch (e) {
  if (!(e instanceof Problem)) throw e;
  console.error(e.message);
  process.exitCode = 2;
}
