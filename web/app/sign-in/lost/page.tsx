import { canMail } from "@/server/door/mail";
import { atTheDoor } from "@/server/door/pages";
import { DoorFrame } from "@/stations/door/door-frame";
import { Lost } from "@/stations/door/sign-in";

export const metadata = { title: "Password lost" };
export const dynamic = "force-dynamic";

export default function LostPage() {
  atTheDoor();
  return (
    <DoorFrame>
      <Lost canMail={canMail()} />
    </DoorFrame>
  );
}
