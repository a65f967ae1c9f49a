import { defineConfig } from "drizzle-kit";

export default defineConfig({ dialect: "postgresql", schema: "./web/data/tables/*.ts", out: "./web/data/migrations" });
