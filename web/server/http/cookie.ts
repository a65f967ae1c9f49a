/** How long, and to whom, the choice of a workshop, a person or a light is told: to this site alone, and to no script. */
export const YEAR_LONG_COOKIE = { maxAge: 31_536_000, sameSite: "strict", httpOnly: true, path: "/" } as const;
