import type { Metadata, Viewport } from "next";
import { cookies } from "next/headers";
import type { ReactNode } from "react";
import { chosenLight } from "@/ui/chosen-light";
import { HydrationMark } from "@/ui/hydrated";
import { FONTS } from "./fonts";
import "./look.css";

export const metadata: Metadata = { title: { default: "Hearth Jar", template: "%s · Hearth Jar" }, description: "From a formula to finished jars." };
export const viewport: Viewport = { width: "device-width", initialScale: 1 };

export default async function RootLayout({ children }: { children: ReactNode }) {
  const light = chosenLight((await cookies()).get("hearth_light")?.value) ?? undefined;
  return (
    <html lang="en" className={FONTS} data-light={light} suppressHydrationWarning>
      <body>
        <HydrationMark />
        {children}
      </body>
    </html>
  );
}
