import { redirect } from "next/navigation";
import { AuthFrame } from "@/features/auth/auth-frame";
import { NewAccount } from "@/features/auth/sign-in";
import { isFirst } from "@/server/auth/commands";
import { requireSignInMode } from "@/server/auth/pages";

export const metadata = { title: "The first account" };
export const dynamic = "force-dynamic";

export default async function FirstPage() {
  requireSignInMode();
  if (!(await isFirst())) redirect("/sign-in");
  return (
    <AuthFrame>
      <NewAccount title="The first account" lead="It owns all workshops on this machine, and invites the others." command="first" asksCode to="/" />
    </AuthFrame>
  );
}
