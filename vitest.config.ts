import { defineConfig } from "vitest/config";

const web = (path: string) => new URL(`./web/${path}`, import.meta.url).pathname;
/** They say for the whole process who may come in, what the browser keeps, or what the framework gives, or count what it asks. */
const APART = [
  "web/log/*.test.ts",
  "web/server/auth/*.test.ts",
  "web/server/operation/{cleaning,metrics}.test.ts",
  "tools/listen.test.ts",
  "demo/apart.test.ts",
  "web/data/tenant-scope.test.ts",
  "web/features/sell/home.test.tsx",
];

export default defineConfig({
  // What the framework gives only within a request.
  resolve: { alias: { "@": web(""), "next/headers": web("testing/headers.ts"), "next/cache": web("testing/cache.ts") } },
  test: {
    testTimeout: 60_000,
    hookTimeout: 120_000,
    maxWorkers: 2,
    unstubEnvs: true,
    projects: [
      // The files of a worker share what they have read: reading it anew for each took longer than the tests.
      {
        extends: true,
        test: { name: "rooms", include: ["{core,web,demo,tools}/**/*.test.{ts,tsx}"], exclude: [...APART, "**/node_modules/**"], isolate: false },
      },
      { extends: true, test: { name: "apart", include: APART } },
    ],
  },
});
