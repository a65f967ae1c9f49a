/** The project's folder, with a slash at its end: `./hearth` and the tests are run from there. */
export const ROOT = `${process.cwd()}/`;
