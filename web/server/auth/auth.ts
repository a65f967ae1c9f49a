import { betterAuth } from "better-auth";
import { drizzleAdapter } from "better-auth/adapters/drizzle";
import { twoFactor } from "better-auth/plugins/two-factor";
import { authDatabase } from "@/data/client";
import { processSingleton } from "@/data/process-singleton";
import { authCredentials, authSecondFactors, authSessions, authUsers, authVerifications } from "@/data/tables/auth";
import { environmentSetting } from "@/server/operation/environment";
import { sendMail } from "./mail";
import { originHere } from "./sign-in-mode";

/** The minimum length of a password, in characters (OWASP ASVS 4.0.3, 2.1.1: no fewer than twelve; from memory). */
export const MIN_PASSWORD = 12;
const DAY_S = 86_400;

function make() {
  const secret = environmentSetting("HEARTH_SESSION_SECRET");
  if (!secret) throw new Error("HEARTH_SESSION_SECRET is not set: start Hearth Jar with ./hearth start --listen ADDRESS.");
  return betterAuth({
    appName: "Hearth Jar",
    baseURL: originHere(),
    secret,
    telemetry: { enabled: false },
    logger: { disabled: true },
    database: drizzleAdapter(authDatabase(), {
      provider: "pg",
      transaction: true,
      schema: { user: authUsers, session: authSessions, account: authCredentials, verification: authVerifications, twoFactor: authSecondFactors },
    }),
    emailAndPassword: {
      enabled: true,
      // Hashed with scrypt, N = 16384, r = 16: 32 MB for each try.
      minPasswordLength: MIN_PASSWORD,
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
      // Attempts are counted by rate-limit.ts.
      disableCSRFCheck: false,
    },
    rateLimit: { enabled: false },
  });
}

/** Returns the sign-in library, over the authentication tables. It is never mounted as it is: what may be asked of it stands in commands.ts. */
export const auth = () => processSingleton("sign-in library", make);
