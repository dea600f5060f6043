import { defineConfig } from "vitest/config";

export default defineConfig({
  test: {
    include: ["e2e/**/*.test.ts"],
    testTimeout: 120_000,
    hookTimeout: 120_000,
    globalSetup: ["./scripts/vitest-setup.mjs"],
    pool: "forks",
    maxWorkers: 2,
    bail: 0,
  },
});
