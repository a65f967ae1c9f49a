import { timingSafeEqual } from "node:crypto";
import { and, eq, gt, isNull, sql } from "drizzle-orm";
import { toString as toSvg } from "qrcode";
import { v7 } from "uuid";
import { z } from "zod";
import { authDatabase, databaseWithoutTenant, type Transaction, tenantDatabase } from "@/data/client";
import { now } from "@/data/clock";
import { authRecoveryCodes, authSecondFactors, authUsers } from "@/data/tables/auth";
import { deviceSessions, devices, invitations, members } from "@/data/tables/people";
import { people } from "@/data/tables/workshop";
import { notifyPages } from "@/server/http/change-stream";
import { errorResponse } from "@/server/http/respond";
import { auth, MIN_PASSWORD } from "./auth";
import { canMail } from "./mail";
import { forgetTries, rememberAddress, tryOf, tryOfName } from "./rate-limit";
import { freshCode, freshToken, hashOf, readCode } from "./secrets";
import { accountOf, DEVICE_COOKIE, deviceOf } from "./session";
import { originHere, requiresSignIn } from "./sign-in-mode";

/** Whoever works on a device does so no longer. */
const endDeviceSessions = async (tx: Transaction, workshopId: string, deviceId: string): Promise<void> =>
  void (await tx
    .update(deviceSessions)
    .set({ endedAt: now() })
    .where(and(eq(deviceSessions.workshopId, workshopId), eq(deviceSessions.deviceId, deviceId), gt(deviceSessions.endedAt, now()))));

/** From where a request came, as the web server wrote it down; what a client says of itself counts for nothing. */
const addressOf = (headers: Headers): string => headers.get("x-hearth-address") ?? "unknown";

const email = z.email("Enter an email address, like name@example.org.").max(200);
const password = z
  .string()
  .min(MIN_PASSWORD, `Choose a password of at least ${MIN_PASSWORD} characters; a sentence works well.`)
  .max(200, "At most 200 characters.");
const name = z.string().trim().min(1, "Enter your first name.").max(120);
const pin = z.string().regex(/^\d{4,8}$/, "A PIN is four to eight digits.");

const tooMany = (seconds: number): Response => {
  const [many, unit] = seconds > 7_200 ? [Math.ceil(seconds / 3_600), "hour"] : [Math.ceil(seconds / 60), "minute"];
  const answer = errorResponse(429, `Too many attempts. Wait ${many} ${many === 1 ? unit : `${unit}s`}, then try again, or ask the workshop's owner.`);
  answer.headers.set("retry-after", String(seconds));
  return answer;
};

/** Counts a try by address, and by name where one was given; an answer where it may not be made. */
async function counted(request: Request, kind: "name" | "code", key?: string): Promise<Response | null> {
  const address = addressOf(request.headers);
  const waits = [await tryOf(kind === "code" ? "code" : "address", address), key ? await tryOfName(key, address) : null];
  const wait = Math.max(...waits.map((wait) => wait ?? 0));
  return wait > 0 ? tooMany(wait) : null;
}

/** Returns an answer of the library's as one of ours: its cookies, and no word of its own. */
function passed(from: Response, body: object, status = 200): Response {
  const answer = Response.json(body, { status, headers: { "cache-control": "no-store" } });
  for (const cookie of from.headers.getSetCookie()) answer.headers.append("set-cookie", cookie);
  return answer;
}

/** Printed codes, each of which lets its owner back in once. Those of before hold no longer. */
async function freshRecoveries(userId: string): Promise<string[]> {
  const codes = Array.from({ length: 8 }, () => freshCode(4));
  await authDatabase().transaction(async (tx) => {
    await tx.delete(authRecoveryCodes).where(eq(authRecoveryCodes.userId, userId));
    await tx.insert(authRecoveryCodes).values(codes.map((code) => ({ userId, hash: hashOf(code) })));
  });
  return codes;
}

/** Makes an account and signs it in. */
async function signUp(request: Request, wanted: { name: string; email: string; password: string }) {
  const made = await auth().api.signUpEmail({ body: wanted, headers: request.headers, asResponse: true });
  if (!made.ok) return { ok: false as const, answer: errorResponse(409, TAKEN, { email: [TAKEN] }) };
  const { user } = (await made.clone().json()) as { user: { id: string } };
  return { ok: true as const, userId: user.id, answer: made };
}
const TAKEN = "An account with this email exists already. Sign in with it first, then open the link again.";

/** A member of a workshop by an account; "other" where the account is somebody else there already. */
async function joinAs(workshopId: string, personId: string, role: "viewer" | "helper" | "editor" | "owner", accountId: string): Promise<"in" | "other"> {
  return tenantDatabase(workshopId, { person: personId, through: "an account" }).transaction(async (tx) => {
    const [other] = await tx
      .select({ personId: members.personId })
      .from(members)
      .where(and(eq(members.workshopId, workshopId), eq(members.accountId, accountId)));
    if (other && other.personId !== personId) return "other";
    await tx
      .insert(members)
      .values({ workshopId, personId, role, accountId })
      .onConflictDoUpdate({ target: [members.workshopId, members.personId], set: { role, accountId } });
    return "in";
  });
}

/** Returns the invitation that a link carries, while it holds. */
export async function invitationOf(workshopId: string, token: string) {
  const [row] = await tenantDatabase(workshopId)
    .select({ id: invitations.id, personId: invitations.personId, role: invitations.role, name: people.name })
    .from(invitations)
    .innerJoin(people, and(eq(people.workshopId, invitations.workshopId), eq(people.id, invitations.personId)))
    .where(and(eq(invitations.workshopId, workshopId), eq(invitations.hash, hashOf(token)), isNull(invitations.usedAt), gt(invitations.until, now())));
  return row ?? null;
}

/** Returns whether nobody has an account here yet. */
export async function isFirst(): Promise<boolean> {
  const [item] = await authDatabase().select({ id: authUsers.id }).from(authUsers).limit(1);
  return !item;
}

const WRONG = "The email or the password is wrong.";
const GONE = "This link was used already or has expired. Ask for a new one.";

interface AuthCommand<S extends z.ZodType> {
  asks: S;
  does: (request: Request, given: z.output<S>) => Promise<Response>;
}
const run = <S extends z.ZodType>(asks: S, does: AuthCommand<S>["does"]): AuthCommand<z.ZodType> => ({ asks, does }) as unknown as AuthCommand<z.ZodType>;

/** A step that only who is signed in with an account may do. */
const signedIn = <S extends z.ZodType>(
  asks: S,
  does: (request: Request, given: z.output<S>, account: NonNullable<Awaited<ReturnType<typeof accountOf>>>) => Promise<Response>,
) =>
  run(asks, async (request, given) => {
    const account = await accountOf(request.headers);
    return account ? does(request, given, account) : errorResponse(401, "Sign in first.");
  });

const ok = (more: object = {}) => Response.json({ ok: true, ...more }, { headers: { "cache-control": "no-store" } });

/** Asks for the password again before something that a stolen session should not do. */
async function knows(request: Request, account: { email: string }, given: string): Promise<Response | null> {
  const wait = await counted(request, "name", account.email);
  if (wait) return wait;
  const right = await auth().api.verifyPassword({ body: { password: given }, headers: request.headers, asResponse: true });
  if (!right.ok) return errorResponse(401, "The password is wrong.", { password: ["The password is wrong."] });
  await forgetTries("name", account.email);
  return null;
}

function deviceCookie(value: string, seconds: number): string {
  return `${DEVICE_COOKIE}=${value}; Path=/; HttpOnly; SameSite=Lax; Max-Age=${seconds}${originHere().startsWith("https:") ? "; Secure" : ""}`;
}
/** A browser keeps a cookie for at most so long (RFC 6265bis, 5.5: 400 days; from memory). */
const LONGEST_COOKIE_S = 400 * 86_400;
/** Who chose a name with a PIN works on until the day is over. */
const PERSON_HOURS = 12;

/** All authentication commands by name. Each counts its attempts; none says whether an address is known. */
export const AUTH_COMMANDS: Readonly<Record<string, AuthCommand<z.ZodType>>> = {
  "sign-in": run(z.object({ email, password: z.string().max(200) }), async (request, given) => {
    const wait = await counted(request, "name", given.email);
    if (wait) return wait;
    const answer = await auth().api.signInEmail({ body: given, headers: request.headers, asResponse: true });
    if (!answer.ok) return errorResponse(401, WRONG, { password: [WRONG] });
    await forgetTries("name", given.email);
    await rememberAddress(given.email, addressOf(request.headers));
    const { twoFactorRedirect } = (await answer.clone().json()) as { twoFactorRedirect?: boolean };
    return passed(answer, { ok: true, secondFactor: twoFactorRedirect === true });
  }),
  "second-factor": run(z.object({ code: z.string().trim().max(40) }), async (request, { code }) => {
    const wait = await counted(request, "code");
    if (wait) return wait;
    const typed = code.replaceAll(" ", "");
    const digits = /^\d{6}$/.test(typed);
    const answer = digits
      ? await auth().api.verifyTOTP({ body: { code: typed }, headers: request.headers, asResponse: true })
      : await auth().api.verifyBackupCode({ body: { code }, headers: request.headers, asResponse: true });
    const why = "This code is wrong. It changes every 30 seconds: use the newest.";
    if (!answer.ok) return errorResponse(401, why, { code: [why] });
    // Each opens once: whoever looked over a shoulder is too late with it.
    const { user, token } = (await answer.clone().json()) as { user?: { id: string }; token?: string };
    if (digits && (await tryOf("used", `${user?.id ?? ""} ${typed}`)) !== null) {
      if (token) await (await auth().$context).internalAdapter.deleteSession(token);
      const used = "This code was used already. Use the next one in 30 seconds.";
      return errorResponse(401, used, { code: [used] });
    }
    return passed(answer, { ok: true });
  }),
  "sign-out": run(z.object({}), async (request) => {
    const answer = await auth().api.signOut({ headers: request.headers, asResponse: true });
    return passed(answer, { ok: true });
  }),
  /** The first account of a machine, by the code that it printed when it was started: the owner of all that is there. */
  first: run(z.object({ code: z.string().max(40), name, email, password }), async (request, given) => {
    const wait = await counted(request, "code");
    if (wait) return wait;
    const [is, should] = [hashOf(readCode(given.code)), process.env.HEARTH_FIRST_CODE ?? ""];
    const right = should.length === is.length && timingSafeEqual(Buffer.from(is), Buffer.from(should));
    if (!right || !(await isFirst()))
      return errorResponse(403, "This is not the code that was printed when Hearth Jar was started, or it was used already.", { code: [GONE] });
    const made = await signUp(request, given);
    if (!made.ok) return made.answer;
    const { rows } = await databaseWithoutTenant().execute<{ id: string }>(sql`select id from workshops_without_owner()`);
    for (const { id } of rows) {
      const db = tenantDatabase(id, { through: "the first account" });
      const [known] = await db
        .select({ id: people.id })
        .from(people)
        .where(and(eq(people.workshopId, id), sql`lower(${people.name}) = lower(${given.name})`));
      const personId = known?.id ?? v7();
      if (!known) await db.insert(people).values({ workshopId: id, id: personId, name: given.name });
      await joinAs(id, personId, "owner", made.userId);
    }
    return passed(made.answer, { ok: true, codes: await freshRecoveries(made.userId) });
  }),
  /** Takes an invitation, with a new account or the one that is signed in. */
  accept: run(
    z.object({ workshop: z.uuid(), token: z.string().max(60), name: name.optional(), email: email.optional(), password: password.optional() }),
    async (request, given) => {
      const wait = await counted(request, "code");
      if (wait) return wait;
      const invitation = await invitationOf(given.workshop, given.token);
      if (!invitation) return errorResponse(404, GONE);
      const account = await accountOf(request.headers);
      const wanted = z.object({ name, email, password }).safeParse(given);
      if (!account && !wanted.success) return errorResponse(400, "Enter a name, an email and a password, or sign in first.");
      const made = account || !wanted.success ? null : await signUp(request, wanted.data);
      if (made && !made.ok) return made.answer;
      const userId = account?.id ?? made?.userId ?? "";
      // It opens once, also where two press at the same instant.
      const existing = await tenantDatabase(given.workshop, { person: invitation.personId, through: "an invitation" })
        .update(invitations)
        .set({ usedAt: now() })
        .where(and(eq(invitations.workshopId, given.workshop), eq(invitations.id, invitation.id), isNull(invitations.usedAt)))
        .returning({ id: invitations.id });
      if (existing.length === 0) return errorResponse(404, GONE);
      if ((await joinAs(given.workshop, invitation.personId, invitation.role, userId)) === "other")
        return errorResponse(409, "You are in this workshop already, under another name.");
      return made ? passed(made.answer, { ok: true, codes: await freshRecoveries(userId) }) : ok();
    },
  ),
  /** Back in by a printed code: a new password, every sign-in ended, and no second factor until it is set up again. */
  recover: run(z.object({ email, code: z.string().max(40), password }), async (request, given) => {
    // A printed code cannot be guessed: wrong passwords from elsewhere do not keep its owner out.
    const wait = await counted(request, "code");
    if (wait) return wait;
    const context = await auth().$context;
    // The same work whether the address is known or not.
    const hash = await context.password.hash(given.password);
    const db = authDatabase();
    const [user] = await db.select({ id: authUsers.id }).from(authUsers).where(eq(authUsers.email, given.email.toLowerCase()));
    const used = await db
      .delete(authRecoveryCodes)
      .where(and(eq(authRecoveryCodes.userId, user?.id ?? "nobody"), eq(authRecoveryCodes.hash, hashOf(readCode(given.code)))))
      .returning({ userId: authRecoveryCodes.userId });
    const why = "The email or the code is wrong. Each recovery code works once.";
    if (!user || used.length === 0) return errorResponse(401, why, { code: [why] });
    await context.internalAdapter.updatePassword(user.id, hash);
    await context.internalAdapter.deleteUserSessions(user.id);
    await db.delete(authSecondFactors).where(eq(authSecondFactors.userId, user.id));
    await db.update(authUsers).set({ twoFactorEnabled: false }).where(eq(authUsers.id, user.id));
    await forgetTries("name", given.email);
    return ok();
  }),
  forgot: run(z.object({ email }), async (request, given) => {
    const wait = (await counted(request, "code")) ?? (await counted(request, "name", given.email));
    if (wait) return wait;
    if (!canMail()) return errorResponse(400, "No mail server is set up. Use one of your recovery codes, or ask the workshop's owner for a new link.");
    await auth().api.requestPasswordReset({ body: { email: given.email }, headers: request.headers, asResponse: true });
    return ok();
  }),
  "new-password": run(z.object({ token: z.string().max(100), password }), async (request, given) => {
    const wait = await counted(request, "code");
    if (wait) return wait;
    const answer = await auth().api.resetPassword({ body: { token: given.token, newPassword: given.password }, headers: request.headers, asResponse: true });
    return answer.ok ? ok() : errorResponse(400, GONE, { password: [GONE] });
  }),
  /** A phone or tablet comes in by the code on the owner's screen. */
  join: run(z.object({ code: z.string().max(40), name: z.string().trim().max(80).default("") }), async (request, given) => {
    if (!requiresSignIn()) return errorResponse(400, "This machine needs no sign-in, and no other machine can reach it.");
    const wait = await counted(request, "code");
    if (wait) return wait;
    const hash = hashOf(readCode(given.code));
    const { rows } = await databaseWithoutTenant().execute<{ id: string | null }>(sql`select workshop_of_code(${hash}) as id`);
    const workshopId = rows[0]?.id;
    const token = freshToken();
    const joined = workshopId
      ? await tenantDatabase(workshopId, { through: "a code" })
          .update(devices)
          .set({ tokenHash: hashOf(token), codeHash: null, joinedAt: now(), seenAt: now(), ...(given.name ? { name: given.name } : {}) })
          .where(and(eq(devices.workshopId, workshopId), eq(devices.codeHash, hash), isNull(devices.cutAt), gt(devices.codeUntil, now())))
          .returning({ id: devices.id })
      : [];
    const why = "This code is wrong, was used already or has expired. Ask for a new one.";
    if (!workshopId || joined.length === 0) return errorResponse(401, why, { code: [why] });
    await notifyPages(tenantDatabase(workshopId), { workshop: workshopId, topics: ["people"] });
    const answer = ok({ workshop: workshopId });
    answer.headers.append("set-cookie", deviceCookie(`${workshopId}.${token}`, LONGEST_COOKIE_S));
    return answer;
  }),
  leave: run(z.object({}), async (request) => {
    // The device is out, not only its cookie: a copy of that opens nothing any more.
    const device = await deviceOf(request.headers);
    if (device) {
      const db = tenantDatabase(device.workshopId, { through: device.name });
      await db.transaction(async (tx) => {
        await endDeviceSessions(tx, device.workshopId, device.id);
        await tx
          .update(devices)
          .set({ cutAt: now(), tokenHash: null, codeHash: null, personId: null, personUntil: null })
          .where(and(eq(devices.workshopId, device.workshopId), eq(devices.id, device.id)));
        await notifyPages(tx, { workshop: device.workshopId, cut: device.id });
      });
    }
    const answer = ok();
    answer.headers.append("set-cookie", deviceCookie("", 0));
    return answer;
  }),
  /** Somebody takes over on a device by a PIN. */
  person: run(z.object({ personId: z.uuid(), pin }), async (request, given) => {
    const device = await deviceOf(request.headers);
    if (!device) return errorResponse(401, "This device is not joined to a workshop.");
    const key = `${device.id}/${given.personId}`;
    const wait = (await tryOf("pin", key)) ?? (await tryOf("person", given.personId));
    if (wait) return tooMany(wait);
    const db = tenantDatabase(device.workshopId, { person: given.personId, through: device.name });
    const [member] = await db
      .select({ pinHash: members.pinHash })
      .from(members)
      .where(and(eq(members.workshopId, device.workshopId), eq(members.personId, given.personId)));
    const context = await auth().$context;
    const right = member?.pinHash ? await context.password.verify({ hash: member.pinHash, password: given.pin }) : false;
    if (!right) return errorResponse(401, "This PIN is wrong.", { pin: ["This PIN is wrong."] });
    await forgetTries("pin", key);
    await forgetTries("person", given.personId);
    const [startedAt, until] = [now(), new Date(Date.parse(now()) + PERSON_HOURS * 3_600_000).toISOString()];
    await db.transaction(async (tx) => {
      await endDeviceSessions(tx, device.workshopId, device.id);
      await tx
        .insert(deviceSessions)
        .values({ workshopId: device.workshopId, deviceId: device.id, personId: given.personId, startedAt, endedAt: until })
        .onConflictDoUpdate({
          target: [deviceSessions.workshopId, deviceSessions.deviceId, deviceSessions.personId, deviceSessions.startedAt],
          set: { endedAt: until },
        });
      await tx
        .update(devices)
        .set({ personId: given.personId, personUntil: until })
        .where(and(eq(devices.workshopId, device.workshopId), eq(devices.id, device.id)));
    });
    return ok();
  }),
  nobody: run(z.object({}), async (request) => {
    const device = await deviceOf(request.headers);
    if (!device) return errorResponse(401, "This device is not joined to a workshop.");
    await tenantDatabase(device.workshopId, { through: device.name }).transaction(async (tx) => {
      await endDeviceSessions(tx, device.workshopId, device.id);
      await tx
        .update(devices)
        .set({ personId: null, personUntil: null })
        .where(and(eq(devices.workshopId, device.workshopId), eq(devices.id, device.id)));
    });
    return ok();
  }),
  "end-session": signedIn(z.object({ id: z.string().max(100) }), async (request, { id }) => {
    const sessions = await auth().api.listSessions({ headers: request.headers });
    const token = sessions.find((session) => session.id === id)?.token;
    if (!token) return errorResponse(404, "This session has ended already.");
    await auth().api.revokeSession({ body: { token }, headers: request.headers });
    return ok();
  }),
  "change-password": signedIn(z.object({ password: z.string().max(200), fresh: password }), async (request, given, account) => {
    const wrong = await knows(request, account, given.password);
    if (wrong) return wrong;
    const answer = await auth().api.changePassword({
      body: { currentPassword: given.password, newPassword: given.fresh, revokeOtherSessions: true },
      headers: request.headers,
      asResponse: true,
    });
    return answer.ok
      ? passed(answer, { ok: true })
      : errorResponse(400, "This password cannot be used. Choose another.", { fresh: ["This password cannot be used. Choose another."] });
  }),
  "fresh-codes": signedIn(
    z.object({ password: z.string().max(200) }),
    async (request, given, account) => (await knows(request, account, given.password)) ?? ok({ codes: await freshRecoveries(account.id) }),
  ),
  /** Begins with an authenticator: gives what it is fed with; it counts once a code of it was right. */
  "begin-second-factor": signedIn(z.object({ password: z.string().max(200) }), async (request, given, account) => {
    const wrong = await knows(request, account, given.password);
    if (wrong) return wrong;
    const answer = await auth().api.enableTwoFactor({ body: { password: given.password }, headers: request.headers, asResponse: true });
    if (!answer.ok) return errorResponse(400, "This cannot be started now. Try again.");
    const { totpURI } = (await answer.clone().json()) as { totpURI: string };
    return passed(answer, { ok: true, uri: totpURI, picture: `data:image/svg+xml,${encodeURIComponent(await toSvg(totpURI, { type: "svg", margin: 2 }))}` });
  }),
  "end-second-factor": signedIn(z.object({ password: z.string().max(200) }), async (request, given, account) => {
    const wrong = await knows(request, account, given.password);
    if (wrong) return wrong;
    const answer = await auth().api.disableTwoFactor({ body: { password: given.password }, headers: request.headers, asResponse: true });
    return answer.ok ? passed(answer, { ok: true }) : errorResponse(400, "This cannot be ended now. Try again.");
  }),
};
