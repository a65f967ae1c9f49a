"use server";

import { cookies } from "next/headers";

const YEAR = { maxAge: 31_536_000, sameSite: "lax", path: "/" } as const;

export async function chooseWorkshop(id: string): Promise<void> {
  const jar = await cookies();
  jar.set("hearth_workshop", id, YEAR);
  jar.delete("hearth_person");
}

export async function choosePerson(id: string): Promise<void> {
  (await cookies()).set("hearth_person", id, YEAR);
}

export async function chooseLight(light: "day" | "evening"): Promise<void> {
  (await cookies()).set("hearth_light", light, YEAR);
}
