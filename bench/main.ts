import { cpus } from "node:os";
import { loaded } from "@oaken/core/later";
import { benchAccuracy } from "./accuracy.ts";
import { benchCarving } from "./carving.ts";
import { benchChoose } from "./choose.ts";
import { firstChoice } from "./choose-cold.ts";
import { benchCuts } from "./cuts.ts";
import { onceInProcess } from "./cold.ts";
import { benchHeight } from "./height.ts";
import { benchOutline } from "./outline.ts";
import { benchPage } from "./page.ts";
import { benchKills } from "./server/kills.ts";
import { benchServer } from "./server/server.ts";

const parts: Record<string, () => Promise<void>> = {
  outline: benchOutline,
  cuts: benchCuts,
  accuracy: benchAccuracy,
  carving: benchCarving,
  choose: benchChoose,
  height: benchHeight,
  page: benchPage,
  server: benchServer,
  kills: benchKills,
};
/** What parts of it run in processes of their own. */
const once: Record<string, (...how: string[]) => Promise<void>> = {
  trace: (who, file) => onceInProcess(who, file),
  choice: (work, picture, outcome, job) => firstChoice(work as "choose" | "plan", picture, outcome, job),
};
await loaded();
const asked = process.argv.slice(2);
if (asked[0] === "--once") {
  const [what, ...how] = asked.slice(1);
  await once[what](...how);
  process.exit(0);
}
const unknown = asked.find((a) => !(a in parts));
if (unknown) {
  console.error(`There is no bench "${unknown}". Known: ${Object.keys(parts).join(", ")}.`);
  process.exit(2);
}
console.log(`Node ${process.version}, ${cpus().length} × ${cpus()[0].model}`);
for (const [name, run] of Object.entries(parts)) if (asked.length === 0 || asked.includes(name)) await run();
process.exit(0);
