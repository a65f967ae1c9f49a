"use client";

import NextLink from "next/link";
import { usePathname as useWholePath, useRouter as useWholeRouter } from "next/navigation";
import { type ComponentProps, createContext, type ReactNode, useCallback, useContext, useMemo } from "react";

/** What stands before every page of the workshop shown: each address names it, so that a page never shows another than the one asked for. */
const BaseContext = createContext("");

export const Addressed = ({ base, children }: { base: string; children: ReactNode }) => <BaseContext value={base}>{children}</BaseContext>;

/** A path within the workshop, as an address of this server; what belongs to no workshop is left as it is. */
const whole = (base: string, path: string): string =>
  !path.startsWith("/") || /^\/(w|api|workshops|sign-in)(\/|\?|$)/.test(path) ? path : `${base}${path === "/" ? "" : path}` || "/";

/** The address of a path within the workshop shown. */
export function useAddress(): (path: string) => string {
  const base = useContext(BaseContext);
  return useCallback((path) => whole(base, path), [base]);
}

export function Link({ href, ...rest }: Omit<ComponentProps<typeof NextLink>, "href"> & { href: string }) {
  return <NextLink href={whole(useContext(BaseContext), href)} {...rest} />;
}

/** The router, for paths within the workshop. */
export function useRouter() {
  const router = useWholeRouter();
  const base = useContext(BaseContext);
  return useMemo(
    () => ({
      ...router,
      push: (path: string) => router.push(whole(base, path)),
      replace: (path: string, options?: Parameters<typeof router.replace>[1]) => router.replace(whole(base, path), options),
    }),
    [router, base],
  );
}

/** Where this page is, within the workshop. */
export function usePathname(): string {
  const path = useWholePath();
  const base = useContext(BaseContext);
  return base && path.startsWith(base) ? path.slice(base.length) || "/" : path;
}
