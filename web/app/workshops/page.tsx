import { namesOfWorkshops, readWorkshop } from "@/server/workshops";
import { Workshops } from "@/stations/frame/workshops";
import { Link } from "@/ui/address";

export const metadata = { title: "Workshops" };
export const dynamic = "force-dynamic";

export default async function WorkshopsPage() {
  const all = await Promise.all((await namesOfWorkshops()).map(({ id }) => readWorkshop(id)));
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
