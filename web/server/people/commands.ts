"use server";

import { ok, type Result, ROLES, reject } from "@hearth/core";
import { and, eq, isNull, ne, sql } from "drizzle-orm";
import { toString as toSvg } from "qrcode";
import { v7 } from "uuid";
import { z } from "zod";
import type { Transaction } from "@/data/client";
import { devices, invitations, members } from "@/data/tables/people";
import { people, workshops } from "@/data/tables/workshop";
import { auth } from "@/server/auth/auth";
import { forgetTries } from "@/server/auth/rate-limit";
import { freshCode, freshToken, hashOf, readCode } from "@/server/auth/secrets";
import { originHere, requiresSignIn } from "@/server/auth/sign-in-mode";
import { command } from "@/server/http/command";

const LINK_DAYS = 7;
const CODE_MINUTES = 10;
const later = (now: string, ms: number): string => new Date(Date.parse(now) + ms).toISOString();
const person = z.object({ personId: z.uuid() });
const NO_ACCOUNTS = "People sign in only where Hearth Jar listens to other machines: start it with ./hearth start --listen ADDRESS.";
const LAST_OWNER = "This is the last owner with an account. Make somebody else an owner first.";

/** Returns whether a workshop would be left with nobody who may decide who works in it. */
async function isLastOwner(tx: Transaction, workshopId: string, personId: string): Promise<boolean> {
  const owners = await tx
    .select({ personId: members.personId })
    .from(members)
    .where(and(eq(members.workshopId, workshopId), eq(members.role, "owner"), sql`${members.accountId} is not null`))
    .for("no key update");
  return owners.length === 1 && owners[0]?.personId === personId;
}

/** Links for a person that nobody has used yet. */
const stillOut = (workshopId: string, personId: string) =>
  and(eq(invitations.workshopId, workshopId), eq(invitations.personId, personId), isNull(invitations.usedAt));

/** Makes a link by which a person comes in with an account. It is shown once; the one before it holds no longer. */
export async function invite(workshopRef: unknown, input: unknown): Promise<Result<{ link: string; until: string }>> {
  return command("people", person.extend({ role: z.enum(ROLES) }), workshopRef, input, async ({ personId, role }, { db, workshop, now }) => {
    if (!requiresSignIn()) return reject(NO_ACCOUNTS);
    const token = freshToken();
    const until = later(now, LINK_DAYS * 86_400_000);
    const existing = await db
      .select({ id: people.id })
      .from(people)
      .where(and(eq(people.workshopId, workshop.id), eq(people.id, personId)));
    if (existing.length === 0) return reject("That person is no longer in this workshop.");
    await db.delete(invitations).where(stillOut(workshop.id, personId));
    await db.insert(invitations).values({ workshopId: workshop.id, id: v7(), personId, role, hash: hashOf(token), until });
    return ok({ link: `${originHere()}/invite/${workshop.id}/${token}`, until });
  });
}

/** Sets what a person may do. */
export async function setRole(workshopRef: unknown, input: unknown): Promise<Result<null>> {
  return command("people", person.extend({ role: z.enum(ROLES) }), workshopRef, input, async ({ personId, role }, { db, workshop, notify }) => {
    if (role !== "owner" && (await isLastOwner(db, workshop.id, personId))) return reject(LAST_OWNER);
    await db
      .insert(members)
      .values({ workshopId: workshop.id, personId, role })
      .onConflictDoUpdate({ target: [members.workshopId, members.personId], set: { role } });
    // A link that is still out lets in as this.
    await db.update(invitations).set({ role }).where(stillOut(workshop.id, personId));
    // What that person listens to begins again, by the new role.
    notify({ role: personId });
    return ok(null);
  });
}

const pin = z.string().regex(/^\d{4,8}$/, "A PIN is four to eight digits.");
/** Gives a person a PIN for the workshop's devices, or takes it away. */
export async function setPin(workshopRef: unknown, input: unknown): Promise<Result<null>> {
  return command("people", person.extend({ pin: pin.nullable() }), workshopRef, input, async ({ personId, pin: chosen }, { db, workshop }) => {
    if (!requiresSignIn()) return reject(NO_ACCOUNTS);
    if (chosen && (/^(\d)\1+$/.test(chosen) || "0123456789876543210".includes(chosen))) {
      const why = "This PIN is too easy to guess. Choose another.";
      return reject(why, { pin: [why] });
    }
    const pinHash = chosen ? await (await auth().$context).password.hash(chosen) : null;
    await db
      .insert(members)
      .values({ workshopId: workshop.id, personId, role: "helper", pinHash })
      .onConflictDoUpdate({ target: [members.workshopId, members.personId], set: { pinHash } });
    // Whoever works by the PIN of before says the new one.
    await db
      .update(devices)
      .set({ personId: null, personUntil: null })
      .where(and(eq(devices.workshopId, workshop.id), eq(devices.personId, personId)));
    await forgetTries("person", personId);
    return ok(null);
  });
}

/** Takes all access from a person; with `forget` the name too: records keep "a former helper". */
export async function takeAccess(workshopRef: unknown, input: unknown): Promise<Result<null>> {
  return command("people", person.extend({ forget: z.boolean() }), workshopRef, input, async ({ personId, forget }, { db, workshop, notify }) => {
    if (await isLastOwner(db, workshop.id, personId)) return reject(LAST_OWNER);
    const condition = and(eq(members.workshopId, workshop.id), eq(members.personId, personId));
    await db.delete(members).where(condition);
    await db.delete(invitations).where(and(eq(invitations.workshopId, workshop.id), eq(invitations.personId, personId)));
    await db
      .update(devices)
      .set({ personId: null, personUntil: null })
      .where(and(eq(devices.workshopId, workshop.id), eq(devices.personId, personId)));
    if (forget) {
      const former = await db
        .select({ id: people.id })
        .from(people)
        .where(and(eq(people.workshopId, workshop.id), sql`${people.name} like 'a former helper%'`, ne(people.id, personId)));
      await db
        .update(people)
        .set({ name: former.length === 0 ? "a former helper" : `a former helper ${former.length + 1}`, archived: true, version: sql`${people.version} + 1` })
        .where(and(eq(people.workshopId, workshop.id), eq(people.id, personId)));
    }
    notify({ cut: personId });
    return ok(null);
  });
}

/** Shows a code by which a phone or tablet comes in: once, and within ten minutes. */
export async function askDevice(workshopRef: unknown, input: unknown): Promise<Result<{ code: string; until: string; address: string; picture: string }>> {
  const asked = z.object({ name: z.string().trim().min(1, "Give the device a name, like “phone on the shelf”.").max(80), role: z.enum(["helper", "editor"]) });
  return command("people", asked, workshopRef, input, async ({ name, role }, { db, workshop, now }) => {
    if (!requiresSignIn()) return reject(NO_ACCOUNTS);
    const code = freshCode(2);
    const until = later(now, CODE_MINUTES * 60_000);
    await db.insert(devices).values({ workshopId: workshop.id, id: v7(), name, role, codeHash: hashOf(readCode(code)), codeUntil: until });
    const address = `${originHere()}/join`;
    return ok({ code, until, address, picture: await toSvg(`${address}?code=${code}`, { type: "svg", margin: 2 }) });
  });
}

const GRACE_DAYS = 30;

/** Deletes a workshop with everything in it after thirty days, or cancels that. Its name has to be typed as a confirmation. */
export async function scheduleWorkshopDeletion(workshopRef: unknown, input: unknown): Promise<Result<{ leavesAt: string | null }>> {
  return command("people", z.object({ go: z.boolean(), name: z.string().max(200) }), workshopRef, input, async ({ go, name }, { db, workshop, now }) => {
    if (go && name.trim().toLowerCase() !== workshop.name.trim().toLowerCase()) {
      const why = `Type the name of the workshop, “${workshop.name}”, to delete it.`;
      return reject(why, { name: [why] });
    }
    const leavesAt = go ? later(now, GRACE_DAYS * 86_400_000) : null;
    await db
      .update(workshops)
      .set({ leavesAt, version: sql`${workshops.version} + 1` })
      .where(eq(workshops.id, workshop.id));
    return ok({ leavesAt });
  });
}

/** Cuts a device off: it sees nothing more, and wipes what it kept as soon as it hears of it. */
export async function cutDevice(workshopRef: unknown, input: unknown): Promise<Result<null>> {
  return command("people", z.object({ deviceId: z.uuid() }), workshopRef, input, async ({ deviceId }, { db, workshop, now, notify }) => {
    await db
      .update(devices)
      .set({ cutAt: now, tokenHash: null, codeHash: null, personId: null, personUntil: null })
      .where(and(eq(devices.workshopId, workshop.id), eq(devices.id, deviceId)));
    notify({ cut: deviceId });
    return ok(null);
  });
}
