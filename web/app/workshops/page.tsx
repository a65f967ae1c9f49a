import { headers } from "next/headers";
import { redirect } from "next/navigation";
import { asksWho } from "@/server/door/mode";
import { accountOf, workshopsFor } from "@/server/door/who";
import { readWorkshop } from "@/server/workshops";
import { Workshops } from "@/stations/frame/workshops";
import { Link } from "@/ui/address";

export const metadata = { title: "Workshops" };
export const dynamic = "force-dynamic";

export default async function WorkshopsPage() {
  if (asksWho() && !(await accountOf(await headers()))) redirect("/sign-in?to=/workshops");
  const all = await Promise.all((await workshopsFor(await headers())).map(({ id }) => readWorkshop(id)));
  return (
    <>
      <header className="border-b-4 border-ink bg-sheet px-8 py-3">
        <Link href="/" className="figure text-[21px] no-underline">
          Hearth Jar
        </Link>
      </header>
      <Workshops workshops={all.filter((one) => one !== null)} zone={Intl.DateTimeFormat().resolvedOptions().timeZone} />
    </>
  );
}
