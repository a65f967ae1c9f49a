import type { ReactNode } from "react";
import { Link } from "@/ui/address";

/** A page before the workshop: nothing of it is shown. */
export const AuthFrame = ({ children }: { children: ReactNode }) => (
  <>
    <header className="unprinted border-b-4 border-ink bg-sheet px-4 py-3 sm:px-8">
      <Link href="/" className="figure text-[21px] no-underline">
        Hearth Jar
      </Link>
    </header>
    {children}
  </>
);
