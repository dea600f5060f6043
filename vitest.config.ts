import { defineConfig } from "vitest/config";

export default defineConfig({
  test: { include: ["{core,cli,files,web,demo,docs,scripts}/**/*.test.ts"], exclude: ["**/node_modules/**"], testTimeout: 60_000, pool: "threads" },
});
