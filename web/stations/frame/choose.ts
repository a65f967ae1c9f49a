"use server";

import { cookies } from "next/headers";
import { KEPT_A_YEAR } from "@/server/cookie";

export async function chooseWorkshop(id: string): Promise<void> {
  const jar = await cookies();
  jar.set("hearth_workshop", id, KEPT_A_YEAR);
  jar.delete("hearth_person");
}

export async function choosePerson(id: string): Promise<void> {
  (await cookies()).set("hearth_person", id, KEPT_A_YEAR);
}

export async function chooseLight(light: "day" | "evening"): Promise<void> {
  (await cookies()).set("hearth_light", light, KEPT_A_YEAR);
}
