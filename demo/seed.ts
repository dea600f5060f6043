import { Problem } from "@oaken/core/problem";
import { store } from "@oaken/web/server/db";
import { seed } from "./jobs.ts";

// With --empty only the data folder is opened, to say now what is wrong with it.
try {
  await store();
  const made = process.argv.includes("--empty") ? 0 : await seed((line) => console.log(line));
  if (made > 0) console.log(`${made} demo jobs are in the data folder.`);
  process.exit(0);
} catch (e) {
  if (!(e instanceof Problem)) throw e;
  console.error(e.message);
  process.exit(1);
}
