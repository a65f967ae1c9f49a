import { environmentSetting } from "@/server/operation/environment";
/** Returns whether who comes must say who it is. On a machine that only itself can reach, nobody has to. */
export const requiresSignIn = (): boolean => process.env.HEARTH_SIGN_IN === "on";

/** The address that browsers reach this program at, as it was started with. */
export const originHere = (): string => environmentSetting("HEARTH_PUBLIC_URL") ?? `http://127.0.0.1:${process.env.PORT ?? 4380}`;
