/** Settings of the server by their name, with the name that versions up to 0.13 read. */
const OLD_NAMES = {
  HEARTH_TRUSTED_PROXIES: "HEARTH_PROXIES",
  HEARTH_ALLOWED_HOSTS: "HEARTH_NAMES",
  HEARTH_PUBLIC_URL: "HEARTH_ORIGIN",
  HEARTH_SESSION_SECRET: "HEARTH_DOOR_SECRET",
} as const;

/** Returns a setting of the environment, also under its old name; undefined if neither is set. */
export const environmentSetting = (name: keyof typeof OLD_NAMES): string | undefined => process.env[name] ?? process.env[OLD_NAMES[name]];
