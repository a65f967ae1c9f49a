/** Imports run one way: core ← data ← stations ← app; ui may read core, never data. */
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
    only("data-knows-no-view", "^web/data/", "^web/(stations|app|ui|workers|devices)/", "data is below the stations."),
    only("ui-never-reads-data", "^web/ui/", "^web/(data|stations|app)/", "ui is drawn from what it is given."),
    only("stations-know-no-route", "^web/stations/", "^web/app/", "routes load and show; nothing leans on them."),
    only("workers-call-core", "^web/workers/", "^web/(data|stations|app|ui)/", "a worker calls core and nothing else."),
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
