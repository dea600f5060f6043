import { fileURLToPath } from "node:url";
import { defineConfig } from "vitest/config";

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
  },
});
