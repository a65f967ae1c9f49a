import { headers } from "next/headers";
import { redirect } from "next/navigation";
import { now } from "@/data/clock";
import { Account } from "@/features/auth/account";
import { AuthFrame } from "@/features/auth/auth-frame";
import { readAccountPage, requireSignInMode } from "@/server/auth/pages";
import { workshopsOfRequest } from "@/server/auth/session";
import { Ground } from "@/ui/units";

export const metadata = { title: "Your account" };
export const dynamic = "force-dynamic";

const UNITS = { mass: "g", temperature: "C", currency: "EUR", zone: "UTC", length: "mm", pounds: false, locale: "en-GB" } as const;

export default async function AccountPage() {
  requireSignInMode();
  const page = await readAccountPage();
  if (!page) redirect("/sign-in?to=/account");
  const { account, sessions, codesLeft } = page;
  return (
    <AuthFrame>
      <Ground units={UNITS} now={now()} frozen>
        <Account
          name={account.name}
          email={account.email}
          twoFactor={account.twoFactor}
          sessions={sessions}
          codesLeft={codesLeft}
          workshops={await workshopsOfRequest(await headers())}
        />
      </Ground>
    </AuthFrame>
  );
}
