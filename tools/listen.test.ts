import { X509Certificate } from "node:crypto";
import { readFileSync, rmSync, statSync } from "node:fs";
import { createServer, get } from "node:https";
import type { AddressInfo } from "node:net";
import { afterEach, describe, expect, it } from "vitest";
import { ownCertificate } from "./certificate";
import { listeningEnv, readListening } from "./listen";
import { passingHome } from "./processes";

const homes: string[] = [];
const home = () => {
  const made = passingHome("listentest");
  homes.push(made);
  return made;
};
afterEach(() => {
  for (const home of homes.splice(0)) rmSync(home, { recursive: true, force: true });
});

describe("listening to other machines", () => {
  it("is asked by an address, and says in one sentence what is wrong", () => {
    expect(readListening([])).toEqual({ listening: null, rest: [] });
    expect(readListening(["--listen", "192.168.1.20", "--x"])).toEqual({ listening: { address: "192.168.1.20", proxies: [] }, rest: ["--x"] });
    for (const [flags, why] of [
      [["--listen"], "needs a value"],
      [["--listen", "shed.example"], "is not one"],
      [["--public", "https://shed.example"], "goes with --listen"],
      [["--listen", "0.0.0.0", "--public", "http://shed.example"], "must begin with https"],
      [["--listen", "0.0.0.0", "--public", "https://shed.example/path"], "nothing behind it"],
      [["--listen", "0.0.0.0", "--cert", "/etc/hostname"], "go together"],
      [["--listen", "0.0.0.0", "--proxy", "proxy"], "is not one"],
    ] as const)
      expect(() => readListening(flags), flags.join(" ")).toThrow(why);
  });

  it("demands a sign-in and TLS, but for a proxy on the same machine; alone it demands neither", async () => {
    const folder = home();
    expect((await listeningEnv(null, folder, 4_390)).env.HEARTH_SIGN_IN).toBe("");
    const open = await listeningEnv({ address: "192.0.2.5", proxies: [] }, folder, 4_390);
    expect(open.url).toBe("https://192.0.2.5:4390");
    expect(open.env).toMatchObject({ HEARTH_SIGN_IN: "on", HEARTH_LISTEN: "192.0.2.5", HEARTH_TLS_CERT: expect.any(String) });
    expect(open.env.HEARTH_ALLOWED_HOSTS?.split(",")).toContain("192.0.2.5:4390");
    const behind = await listeningEnv({ address: "127.0.0.1", public: "https://shed.example", proxies: ["127.0.0.1"] }, folder, 4_390);
    expect(behind.url).toBe("https://shed.example");
    expect(behind.env).toMatchObject({ HEARTH_SIGN_IN: "on", HEARTH_PUBLIC_URL: "https://shed.example", HEARTH_TRUSTED_PROXIES: "127.0.0.1" });
    expect(behind.env.HEARTH_TLS_CERT).toBeUndefined();
    // One secret for all starts on this data.
    expect(behind.env.HEARTH_SESSION_SECRET).toBe(open.env.HEARTH_SESSION_SECRET);
  });

  it("has a certificate of its own that a device trusts by its authority, for the names it is reached by, renewed in time", async () => {
    const folder = home();
    const names = ["127.0.0.1", "localhost", "shed.example"];
    const made = ownCertificate(folder, names);
    const [leaf, authority] = [new X509Certificate(readFileSync(made.cert)), new X509Certificate(readFileSync(made.authority))];
    expect(leaf.verify(authority.publicKey)).toBe(true);
    expect(authority.ca).toBe(true);
    expect(leaf.ca).toBe(false);
    expect(leaf.checkHost("shed.example")).toBe("shed.example");
    expect(leaf.checkIP("127.0.0.1")).toBe("127.0.0.1");
    expect((Date.parse(leaf.validTo) - Date.parse(leaf.validFrom)) / 86_400_000).toBeLessThanOrEqual(398);
    expect(statSync(made.key).mode & 0o077).toBe(0);
    // A client that trusts the authority alone reaches it.
    const server = createServer({ cert: readFileSync(made.cert), key: readFileSync(made.key) }, (_request, response) => response.end("well"));
    await new Promise<void>((ready) => server.listen(0, "127.0.0.1", ready));
    const { port } = server.address() as AddressInfo;
    const reached = (ca?: Buffer) =>
      new Promise<string>((done) => {
        get(`https://127.0.0.1:${port}/`, ca ? { ca } : {}, (answer) => {
          answer.resume();
          done(String(answer.statusCode));
        }).on("error", (error: NodeJS.ErrnoException) => done(error.code ?? "?"));
      });
    expect(await reached(readFileSync(made.authority))).toBe("200");
    expect(await reached()).not.toBe("200");
    server.close();
    const text = readFileSync(made.cert, "utf8");
    expect(readFileSync(ownCertificate(folder, names).cert, "utf8")).toBe(text);
    // Eleven months and a half later, or by another name, it is made anew; who vouches for it stays.
    const later = ownCertificate(folder, names, new Date(Date.now() + 375 * 86_400_000));
    expect(readFileSync(later.cert, "utf8")).not.toBe(text);
    ownCertificate(folder, [...names, "192.0.2.5"]);
    expect(new X509Certificate(readFileSync(made.cert)).checkIP("192.0.2.5")).toBe("192.0.2.5");
    expect(new X509Certificate(readFileSync(later.authority)).fingerprint256).toBe(authority.fingerprint256);
  });
});
