import { redirect } from "next/navigation";
import { isFirst } from "@/server/door/acts";
import { atTheDoor } from "@/server/door/pages";
import { DoorFrame } from "@/stations/door/door-frame";
import { NewAccount } from "@/stations/door/sign-in";

export const metadata = { title: "The first account" };
export const dynamic = "force-dynamic";

export default async function FirstPage() {
  atTheDoor();
  if (!(await isFirst())) redirect("/sign-in");
  return (
    <DoorFrame>
      <NewAccount title="The first account" lead="It owns all workshops of this machine, and asks the others in." act="first" asksCode to="/" />
    </DoorFrame>
  );
}
