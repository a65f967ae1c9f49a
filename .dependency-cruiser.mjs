/** Imports run one way: core ← data ← server ← stations ← app; ui, log and forms read core, never data. */
const only = (name, from, to, comment) => ({ name, severity: "error", comment, from: { path: from }, to: { path: to } });

export default {
  forbidden: [
    only("core-stands-alone", "^core/", "^(web|demo|e2e|tools)/", "core is the trade's arithmetic and knows nobody."),
    {
      name: "core-needs-only-zod",
      severity: "error",
      from: { path: "^core/", pathNot: "\\.test\\.ts$" },
      to: { dependencyTypes: ["npm", "npm-dev", "npm-peer", "npm-optional", "core"], pathNot: "node_modules/zod/" },
    },
    only(
      "data-is-the-ground",
      "^web/data/(?!.*\\.test\\.ts$)",
      "^web/(server|stations|app|ui|log|forms|catalogue|workers)/",
      "data knows core and nobody else.",
    ),
    only(
      "server-knows-no-view",
      "^web/server/(?!.*\\.test\\.ts$)",
      "^web/(stations|app|ui|log|forms|catalogue|workers)/",
      "what is read and written does not depend on how it is shown.",
    ),
    only(
      "ui-is-drawn-from-what-it-is-given",
      "^web/ui/",
      "^web/(data|server|stations|app|log|forms|catalogue)/",
      "pictures and primitives know core and nobody else.",
    ),
    only("log-and-forms-read-no-data", "^web/(log|forms)/", "^web/(data|server|stations|app|catalogue)/", "they run in the browser and serve every station."),
    only(
      "the-catalogue-asks-the-server",
      "^web/catalogue/",
      "^web/(data|stations|app)/",
      "what stations share of choosing, finding and tidying; it knows no table and no station.",
    ),
    only("views-write-no-sql", "^web/stations/(?!.*(commands|choose)\\.ts$)", "^web/data/", "a station's commands write; its views and models know no table."),
    only("stations-know-no-route", "^web/stations/", "^web/app/", "routes load and show; nothing leans on them."),
    {
      name: "a-station-knows-no-other",
      severity: "error",
      comment: "What two stations share belongs to server, log, forms or ui.",
      from: { path: "^web/stations/([^/]+)/" },
      to: { path: "^web/stations/", pathNot: "^web/stations/$1/" },
    },
    only("workers-call-core", "^web/workers/", "^web/(data|server|stations|app|ui|log|forms)/", "a worker calls core and nothing else."),
    only("the-web-knows-no-demo", "^web/", "^(demo|e2e|tools)/", "the program does not depend on its demo."),
    {
      name: "core-has-one-face",
      severity: "error",
      comment: "Outside core, only its index is imported.",
      from: { path: "^(web|demo|e2e|tools)/" },
      to: { path: "^core/", pathNot: "^core/index\\.ts$" },
    },
    { name: "no-circles", severity: "error", from: {}, to: { circular: true, viaOnly: { dependencyTypesNot: ["type-only"] } } },
    { name: "resolvable", severity: "error", from: {}, to: { couldNotResolve: true, pathNot: "\\.css$" } },
  ],
  options: {
    doNotFollow: { path: "node_modules" },
    exclude: { path: "\\.next/|next-env" },
    tsPreCompilationDeps: true,
    enhancedResolveOptions: {
      extensions: [".ts", ".tsx", ".mjs", ".js", ".json"],
      exportsFields: ["exports"],
      conditionNames: ["import", "require", "node", "default", "types"],
    },
    webpackConfig: { fileName: "tools/lint/resolve.cjs" },
  },
};
