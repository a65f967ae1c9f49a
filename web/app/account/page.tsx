import { headers } from "next/headers";
import { redirect } from "next/navigation";
import { now } from "@/data/clock";
import { accountPage, atTheDoor } from "@/server/door/pages";
import { workshopsFor } from "@/server/door/who";
import { Account } from "@/stations/door/account";
import { DoorFrame } from "@/stations/door/door-frame";
import { Ground } from "@/ui/units";

export const metadata = { title: "Your account" };
export const dynamic = "force-dynamic";

const UNITS = { mass: "g", temperature: "C", currency: "EUR", zone: "UTC", length: "mm", pounds: false, locale: "en-GB" } as const;

export default async function AccountPage() {
  atTheDoor();
  const page = await accountPage();
  if (!page) redirect("/sign-in?to=/account");
  const { account, sessions, codesLeft } = page;
  return (
    <DoorFrame>
      <Ground units={UNITS} now={now()} frozen>
        <Account
          name={account.name}
          email={account.email}
          twoFactor={account.twoFactor}
          sessions={sessions}
          codesLeft={codesLeft}
          workshops={await workshopsFor(await headers())}
        />
      </Ground>
    </DoorFrame>
  );
}
