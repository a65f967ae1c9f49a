import { defineConfig } from "vitest/config";

export default defineConfig({
  resolve: { alias: { "@": new URL("./web", import.meta.url).pathname } },
  test: { include: ["{core,web,demo,tools}/**/*.test.{ts,tsx}"], testTimeout: 30_000, hookTimeout: 60_000, maxWorkers: 2 },
});
