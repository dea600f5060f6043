import { fileURLToPath } from "node:url";
import { defineConfig } from "vitest/config";
import { BaseSequencer, type TestSpecification } from "vitest/node";

/** These take minutes: begun last, one core would wait for them. */
const LONG = ["core/job/unkind.test.ts", "core/job/keys.test.ts", "core/cuts/finish/finish.test.ts"];

class LongFirst extends BaseSequencer {
  async sort(files: TestSpecification[]): Promise<TestSpecification[]> {
    const sorted = await super.sort(files);
    const isLong = (f: TestSpecification) => LONG.some((name) => f.moduleId.endsWith(name));
    return [...sorted.filter(isLong), ...sorted.filter((f) => !isLong(f))];
  }
}

export default defineConfig({
  resolve: { alias: { "@/": fileURLToPath(new URL("./web/", import.meta.url)) } },
  test: {
    include: ["{core,cli,files,web,demo,docs,scripts}/**/*.test.ts"],
    exclude: ["**/node_modules/**"],
    testTimeout: 120_000,
    hookTimeout: 60_000,
    globalSetup: ["./scripts/vitest-setup.mjs"],
    setupFiles: ["./core/testing/breathe.ts"],
    pool: "forks",
    maxWorkers: 2,
    sequence: { sequencer: LongFirst },
  },
});
