import { headers } from "next/headers";
import { redirect } from "next/navigation";
import { Workshops } from "@/features/shell/workshops";
import { accountOf, workshopsOfRequest } from "@/server/auth/session";
import { requiresSignIn } from "@/server/auth/sign-in-mode";
import { readWorkshop } from "@/server/workshops/workshops";
import { Link } from "@/ui/address";

export const metadata = { title: "Workshops" };
export const dynamic = "force-dynamic";

export default async function WorkshopsPage() {
  if (requiresSignIn() && !(await accountOf(await headers()))) redirect("/sign-in?to=/workshops");
  const all = await Promise.all((await workshopsOfRequest(await headers())).map(({ id }) => readWorkshop(id)));
  return (
    <>
      <header className="border-b-4 border-ink bg-sheet px-8 py-3">
        <Link href="/" className="figure text-[21px] no-underline">
          Hearth Jar
        </Link>
      </header>
      <Workshops workshops={all.filter((item) => item !== null)} zone={Intl.DateTimeFormat().resolvedOptions().timeZone} />
    </>
  );
}
