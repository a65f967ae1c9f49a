import { randomBytes } from "node:crypto";
import { existsSync, readFileSync } from "node:fs";
import { get as getPlain } from "node:http";
import { get as getSecure } from "node:https";
import { isIP } from "node:net";
import { hostname, networkInterfaces } from "node:os";
import { join, resolve } from "node:path";
import { ownCertificate } from "./certificate";
import { Plain, writeWhole } from "./processes";

/** How others reach the program, where they may; without it only this machine does, and nobody has to say who it is. */
export interface Listening {
  /** An address of this machine, or 0.0.0.0 for all of them. */
  address: string;
  /** The address that browsers use, where it is another: that of a proxy. */
  public?: string;
  cert?: string;
  key?: string;
  /** Addresses of proxies whose X-Forwarded-For and -Host are believed. */
  proxies: string[];
}

const VALUED = ["--listen", "--public", "--cert", "--key", "--proxy"];
const HOW = "./hearth start --listen ADDRESS [--cert FILE --key FILE] [--public https://NAME --proxy ADDRESS]";

/** Reads what follows `start`; null if it is to listen to this machine alone. Says in one sentence what is wrong. */
export function readListening(flags: readonly string[]): { listening: Listening | null; rest: string[] } {
  const given = new Map<string, string[]>();
  const rest: string[] = [];
  for (let at = 0; at < flags.length; at++) {
    const flag = flags[at] as string;
    if (!VALUED.includes(flag)) {
      rest.push(flag);
      continue;
    }
    const value = flags[++at];
    if (!value || value.startsWith("--")) throw new Plain(`${flag} needs a value: ${HOW}`);
    given.set(flag, [...(given.get(flag) ?? []), value]);
  }
  const item = (flag: string): string | undefined => given.get(flag)?.at(-1);
  const address = item("--listen");
  if (!address) {
    if (given.size > 0) throw new Plain(`${[...given.keys()].join(", ")} goes with --listen: ${HOW}`);
    return { listening: null, rest };
  }
  if (isIP(address) === 0) throw new Plain(`--listen takes an address of this machine like 192.168.1.20, or 0.0.0.0 for all; “${address}” is not one.`);
  const [cert, key, open] = [item("--cert"), item("--key"), item("--public")];
  if ((cert === undefined) !== (key === undefined)) throw new Plain("--cert and --key go together.");
  for (const file of [cert, key]) if (file && !existsSync(file)) throw new Plain(`There is no file ${file}.`);
  if (open !== undefined) {
    const url = URL.canParse(open) ? new URL(open) : null;
    if (!url || !/^https?:$/.test(url.protocol) || url.pathname !== "/")
      throw new Plain("--public takes an address like https://shed.example.org, with nothing behind it.");
    if (url.protocol === "http:" && !isLoopback(url.hostname))
      throw new Plain("--public must begin with https: passwords would go over the network for all to read.");
  }
  const proxies = given.get("--proxy") ?? [];
  for (const proxy of proxies) if (isIP(proxy) === 0) throw new Plain(`--proxy takes the address that the proxy comes from; “${proxy}” is not one.`);
  return {
    listening: { address, ...(open ? { public: new URL(open).origin } : {}), ...(cert && key ? { cert: resolve(cert), key: resolve(key) } : {}), proxies },
    rest,
  };
}

const isLoopback = (host: string): boolean => /^(localhost|127\.\d+\.\d+\.\d+|::1|\[::1\])$/.test(host);

/** The addresses of this machine that others may use. */
const ownAddresses = (): string[] =>
  Object.values(networkInterfaces())
    .flatMap((all) => all ?? [])
    .filter((interfaceInfo) => !interfaceInfo.internal && !interfaceInfo.address.startsWith("fe80"))
    .map((interfaceInfo) => interfaceInfo.address);

/** Returns a secret that outlasts restarts, in a file that only its owner reads. Servers that share a database are given one and the same. */
export function sessionSecret(home: string): string {
  const file = join(home, "door-secret");
  const given = process.env.HEARTH_SESSION_SECRET ?? process.env.HEARTH_DOOR_SECRET;
  if (given) return given;
  if (!existsSync(file)) writeWhole(file, randomBytes(32).toString("base64url"));
  return readFileSync(file, "utf8").trim();
}

/** Returns what the web server is told of how it listens, and the address that it is reached at. */
export async function listeningEnv(
  listening: Listening | null,
  home: string,
  port: number,
): Promise<{ url: string; reach: string; env: Record<string, string> }> {
  const loopback = `http://127.0.0.1:${port}`;
  if (!listening) return { url: loopback, reach: loopback, env: { HEARTH_SIGN_IN: "", HEARTH_LISTEN: "", HEARTH_ALLOWED_HOSTS: "", HEARTH_PUBLIC_URL: "" } };
  const all = listening.address === "0.0.0.0" || listening.address === "::";
  const shown = all ? (ownAddresses()[0] ?? "127.0.0.1") : listening.address;
  const bracketed = isIP(shown) === 6 ? `[${shown}]` : shown;
  const addresses = all ? ownAddresses() : [listening.address];
  // Plain HTTP goes no further than this machine, or a proxy on it.
  const plain = listening.public !== undefined || isLoopback(listening.address);
  const own = plain || listening.cert ? null : ownCertificate(home, [...addresses, "127.0.0.1", "localhost", hostname()]);
  const [cert, key] = [listening.cert ?? own?.cert, listening.key ?? own?.key];
  const scheme = cert ? "https" : "http";
  const url = listening.public ?? `${scheme}://${bracketed}:${port}`;
  const names = [new URL(url).host, new URL(url).hostname, ...addresses, hostname()].map((text) => text.toLowerCase());
  return {
    url,
    reach: `${scheme}://${all ? "127.0.0.1" : bracketed}:${port}`,
    env: {
      HEARTH_SIGN_IN: "on",
      HEARTH_LISTEN: listening.address,
      HEARTH_PUBLIC_URL: url,
      HEARTH_ALLOWED_HOSTS: [...new Set(names)].join(","),
      HEARTH_TRUSTED_PROXIES: listening.proxies.join(","),
      HEARTH_SESSION_SECRET: sessionSecret(home),
      ...(cert && key ? { HEARTH_TLS_CERT: cert, HEARTH_TLS_KEY: key } : {}),
      ...(own ? { HEARTH_TLS_AUTHORITY: own.authority } : {}),
    },
  };
}

/** Returns whether the health route answers; any certificate is accepted, since this machine asks itself. */
export const isWell = (reach: string): Promise<boolean> =>
  new Promise((done) => {
    const asked = (reach.startsWith("https:") ? getSecure : getPlain)(`${reach}/api/health`, { rejectUnauthorized: false, timeout: 5_000 }, (answer) => {
      answer.resume();
      done(answer.statusCode === 200);
    });
    asked.on("error", () => done(false));
    asked.on("timeout", () => asked.destroy());
  });
