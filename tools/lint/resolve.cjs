// How the dependency linter finds "@/…", as web/tsconfig.json has it.
module.exports = { resolve: { alias: { "@": require("node:path").join(__dirname, "../../web") } } };
