import { atTheDoor } from "@/server/door/pages";
import { DoorFrame } from "@/stations/door/door-frame";
import { NewPassword } from "@/stations/door/sign-in";

export const metadata = { title: "A new password" };
export const dynamic = "force-dynamic";

export default async function NewPasswordPage({ searchParams }: { searchParams: Promise<{ token?: string }> }) {
  atTheDoor();
  return (
    <DoorFrame>
      <NewPassword token={(await searchParams).token ?? ""} />
    </DoorFrame>
  );
}
