"use server";

import { cookies } from "next/headers";
import { YEAR_LONG_COOKIE } from "@/server/http/cookie";

export async function chooseWorkshop(id: string): Promise<void> {
  const jar = await cookies();
  jar.set("hearth_workshop", id, YEAR_LONG_COOKIE);
  jar.delete("hearth_person");
}

export async function choosePerson(id: string): Promise<void> {
  (await cookies()).set("hearth_person", id, YEAR_LONG_COOKIE);
}

export async function chooseLight(light: "day" | "evening"): Promise<void> {
  (await cookies()).set("hearth_light", light, YEAR_LONG_COOKIE);
}
