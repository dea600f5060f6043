import { Problem } from "@oaken/core/problem";
import { shop } from "./command.ts";
import { importEntries, listEntries } from "./shop.ts";

// A bundle of its own: only these commands need the database.
try {
  process.exitCode = await shop(process.argv.slice(2), { listEntries, importEntries }, (line) => console.log(line));
} catch (e) {
  if (!(e instanceof Problem)) throw e;
  console.error(e.message);
  process.exitCode = 2;
}
