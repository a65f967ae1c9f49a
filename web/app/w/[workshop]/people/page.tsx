import { here } from "@/server/context";
import { asksWho } from "@/server/door/mode";
import { readPeople } from "@/server/people";
import { PeoplePage } from "@/stations/people/people";

export const metadata = { title: "People and devices" };

export default async function Page() {
  const { db, workshop, now } = await here();
  return (
    <PeoplePage
      asks={asksWho()}
      leavesAt={workshop.leavesAt ? new Date(workshop.leavesAt).toISOString() : null}
      {...(await readPeople(db, workshop.id, now))}
    />
  );
}
