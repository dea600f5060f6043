import { seed } from "./jobs.ts";

const made = await seed((line) => console.log(line));
if (made > 0) console.log(`${made} demo jobs are in the data folder.`);
process.exit(0);
