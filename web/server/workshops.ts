import { asc } from "drizzle-orm";
import { database } from "@/data/client";
import { workshops } from "@/data/tables/workshop";

export const listWorkshops = () => database().select().from(workshops).orderBy(asc(workshops.createdAt), asc(workshops.id)).limit(200);
