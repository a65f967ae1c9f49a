import { betterAuth } from "better-auth";
import { drizzleAdapter } from "better-auth/adapters/drizzle";
import { twoFactor } from "better-auth/plugins/two-factor";
import { databaseOfDoor } from "@/data/client";
import { processSingleton } from "@/data/process-singleton";
import { doorCredentials, doorSecondFactors, doorSessions, doorUsers, doorVerifications } from "@/data/tables/door";
import { sendMail } from "./mail";
import { originHere } from "./mode";

/** A password has so many signs at least (OWASP ASVS 4.0.3, 2.1.1: no fewer than twelve; from memory). */
export const LEAST_PASSWORD = 12;
const DAY_S = 86_400;

function make() {
  const secret = process.env.HEARTH_DOOR_SECRET;
  if (!secret) throw new Error("HEARTH_DOOR_SECRET is not set: start Hearth Jar with ./hearth start --listen ADDRESS.");
  return betterAuth({
    appName: "Hearth Jar",
    baseURL: originHere(),
    secret,
    telemetry: { enabled: false },
    logger: { disabled: true },
    database: drizzleAdapter(databaseOfDoor(), {
      provider: "pg",
      transaction: true,
      schema: { user: doorUsers, session: doorSessions, account: doorCredentials, verification: doorVerifications, twoFactor: doorSecondFactors },
    }),
    emailAndPassword: {
      enabled: true,
      // Hashed with scrypt, N = 16384, r = 16: 32 MB for each try.
      minPasswordLength: LEAST_PASSWORD,
      maxPasswordLength: 200,
      revokeSessionsOnPasswordReset: true,
      sendResetPassword: async ({ user, token }) =>
        sendMail(
          user.email,
          "A new password for Hearth Jar",
          `Choose a new password at ${originHere()}/sign-in/new-password?token=${token}\nThe link holds for an hour.`,
        ),
    },
    session: { expiresIn: 30 * DAY_S, updateAge: DAY_S, freshAge: DAY_S },
    plugins: [twoFactor({ issuer: "Hearth Jar" })],
    advanced: {
      cookiePrefix: "hearth",
      ipAddress: { ipAddressHeaders: ["x-hearth-address"] },
      useSecureCookies: originHere().startsWith("https:"),
      defaultCookieAttributes: { httpOnly: true, sameSite: "lax" },
      // Tries are counted by the door itself.
      disableCSRFCheck: false,
    },
    rateLimit: { enabled: false },
  });
}

/** The sign-in library, over the tables of the door. It is never mounted as it is: what may be asked of it stands in the door's own routes. */
export const auth = () => processSingleton("sign-in library", make);
