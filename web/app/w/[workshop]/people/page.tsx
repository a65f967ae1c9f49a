import { PeoplePage } from "@/features/people/people";
import { requiresSignIn } from "@/server/auth/sign-in-mode";
import { requestContext } from "@/server/http/context";
import { readPeople } from "@/server/workshops/people";

export const metadata = { title: "People and devices" };

export default async function Page() {
  const { db, workshop, now } = await requestContext();
  return (
    <PeoplePage
      asks={requiresSignIn()}
      leavesAt={workshop.leavesAt ? new Date(workshop.leavesAt).toISOString() : null}
      {...(await readPeople(db, workshop.id, now))}
    />
  );
}
