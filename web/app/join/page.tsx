import { atTheDoor } from "@/server/door/pages";
import { DoorFrame } from "@/stations/door/door-frame";
import { Join } from "@/stations/door/sign-in";

export const metadata = { title: "Join this device" };
export const dynamic = "force-dynamic";

export default async function JoinPage({ searchParams }: { searchParams: Promise<{ code?: string; cut?: string }> }) {
  atTheDoor();
  const { code = "", cut } = await searchParams;
  return (
    <DoorFrame>
      <Join code={/^[\w-]{1,20}$/.test(code) ? code : ""} cut={cut === "1"} secure={Boolean(process.env.HEARTH_TLS_AUTHORITY)} />
    </DoorFrame>
  );
}
