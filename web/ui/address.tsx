"use client";

import { mayOpen, type Role } from "@hearth/core";
import NextLink from "next/link";
import { usePathname as useWholePath, useRouter as useWholeRouter } from "next/navigation";
import { type ComponentProps, createContext, type ReactNode, useCallback, useContext, useMemo } from "react";

/** What stands before every page of the workshop shown: each address names it, so that a page never shows another than the one asked for. */
const BaseContext = createContext("");
const RoleContext = createContext<Role>("owner");

export const Addressed = ({ base, role, children }: { base: string; role: Role; children: ReactNode }) => (
  <BaseContext value={base}>
    <RoleContext value={role}>{children}</RoleContext>
  </BaseContext>
);

/** A path within the workshop, as an address of this server; what belongs to no workshop is left as it is. */
const whole = (base: string, path: string): string =>
  !path.startsWith("/") || /^\/(w|api|workshops|sign-in)(\/|\?|$)/.test(path) ? path : `${base}${path === "/" ? "" : path}` || "/";

/** Returns the address of a path within the workshop shown. */
export function useAddress(): (path: string) => string {
  const base = useContext(BaseContext);
  return useCallback((path) => whole(base, path), [base]);
}

/** What looks like a button is not offered where it leads nowhere. */
const BUTTON = /(^|\s)(action-button|press)(\s|$)/;

/**
 * A link to another page of the workshop; plain text for somebody who may not open that page. A page is drawn when it is asked for: with some twenty links to
 * a page, fetching ahead would have the server draw twenty that nobody opens.
 */
export function Link({ href, ...rest }: ComponentProps<"a"> & { href: string }) {
  const [base, role] = [useContext(BaseContext), useContext(RoleContext)];
  const address = whole(base, href);
  if (base && address.startsWith(base) && !mayOpen(role, href)) return BUTTON.test(rest.className ?? "") ? null : <span>{rest.children}</span>;
  return <NextLink href={address} prefetch={false} {...rest} />;
}

/** Returns the router, for paths within the workshop. */
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

/** Returns where this page is, within the workshop. */
export function usePathname(): string {
  const path = useWholePath();
  const base = useContext(BaseContext);
  return base && path.startsWith(base) ? path.slice(base.length) || "/" : path;
}
