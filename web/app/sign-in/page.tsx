import { canMail } from "@/server/door/mail";
import { atTheDoor, deviceHere, onward } from "@/server/door/pages";
import { DoorFrame } from "@/stations/door/door-frame";
import { SignIn } from "@/stations/door/sign-in";

export const metadata = { title: "Sign in" };
export const dynamic = "force-dynamic";

export default async function SignInPage({ searchParams }: { searchParams: Promise<{ to?: string }> }) {
  atTheDoor();
  return (
    <DoorFrame>
      <SignIn to={onward((await searchParams).to)} canMail={canMail()} device={await deviceHere()} />
    </DoorFrame>
  );
}
