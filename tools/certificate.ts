import { randomBytes, webcrypto } from "node:crypto";
import { existsSync, mkdirSync, readFileSync } from "node:fs";
import { isIP } from "node:net";
import { hostname } from "node:os";
import { join } from "node:path";
import "reflect-metadata";
import * as x509 from "@peculiar/x509";
import { writeWhole } from "./processes";

const DAY_MS = 86_400_000;
/** A device refuses a certificate that holds longer than 398 days (CA/Browser Forum baseline, 6.3.2; from memory). */
const LEAF_DAYS = 397;
const RENEW_DAYS = 30;
const ALGORITHM = { name: "ECDSA", namedCurve: "P-256", hash: "SHA-256" } as const;

const pem = async (key: CryptoKey): Promise<string> =>
  x509.PemConverter.encode(await webcrypto.subtle.exportKey("pkcs8", key as webcrypto.CryptoKey), "PRIVATE KEY");
const keyFrom = async (text: string): Promise<CryptoKey> =>
  (await webcrypto.subtle.importKey("pkcs8", x509.PemConverter.decode(text)[0] as ArrayBuffer, ALGORITHM, true, ["sign"])) as CryptoKey;

/** A certificate of the workshop's own for these names, made once and renewed in time; the authority that vouches for it is what a phone is told to trust. */
export async function ownCertificate(home: string, names: readonly string[], now = new Date()): Promise<{ cert: string; key: string; authority: string }> {
  x509.cryptoProvider.set(webcrypto as unknown as Crypto);
  const at = (name: string) => join(home, "tls", name);
  mkdirSync(join(home, "tls"), { recursive: true, mode: 0o700 });
  const pair = async () => (await webcrypto.subtle.generateKey(ALGORITHM, true, ["sign", "verify"])) as CryptoKeyPair;
  const serial = () =>
    randomBytes(16)
      .toString("hex")
      .replace(/^[89a-f]/, "1");
  if (!existsSync(at("authority.crt")) || !existsSync(at("authority.key"))) {
    const keys = await pair();
    const made = await x509.X509CertificateGenerator.createSelfSigned({
      serialNumber: serial(),
      name: `CN=Hearth Jar on ${hostname().replaceAll(/[^\w.-]/g, "")}`,
      notBefore: new Date(now.getTime() - DAY_MS),
      notAfter: new Date(now.getTime() + 3_650 * DAY_MS),
      signingAlgorithm: ALGORITHM,
      keys,
      extensions: [
        new x509.BasicConstraintsExtension(true, 0, true),
        new x509.KeyUsagesExtension(x509.KeyUsageFlags.keyCertSign | x509.KeyUsageFlags.cRLSign, true),
        await x509.SubjectKeyIdentifierExtension.create(keys.publicKey),
      ],
    });
    writeWhole(at("authority.key"), await pem(keys.privateKey));
    writeWhole(at("authority.crt"), made.toString("pem"));
  }
  const authority = new x509.X509Certificate(readFileSync(at("authority.crt"), "utf8"));
  const wanted = [...new Set(names)].sort().join(",");
  const holds = () => {
    if (!existsSync(at("server.crt")) || !existsSync(at("server.key")) || !existsSync(at("names")) || readFileSync(at("names"), "utf8") !== wanted)
      return false;
    return new x509.X509Certificate(readFileSync(at("server.crt"), "utf8")).notAfter.getTime() - now.getTime() > RENEW_DAYS * DAY_MS;
  };
  if (!holds()) {
    const keys = await pair();
    const made = await x509.X509CertificateGenerator.create({
      serialNumber: serial(),
      subject: "CN=Hearth Jar",
      issuer: authority.subject,
      notBefore: new Date(now.getTime() - DAY_MS),
      notAfter: new Date(now.getTime() + LEAF_DAYS * DAY_MS),
      signingAlgorithm: ALGORITHM,
      publicKey: keys.publicKey,
      signingKey: await keyFrom(readFileSync(at("authority.key"), "utf8")),
      extensions: [
        new x509.BasicConstraintsExtension(false, undefined, true),
        new x509.KeyUsagesExtension(x509.KeyUsageFlags.digitalSignature, true),
        new x509.ExtendedKeyUsageExtension([x509.ExtendedKeyUsage.serverAuth]),
        new x509.SubjectAlternativeNameExtension([...new Set(names)].map((value) => ({ type: isIP(value) ? ("ip" as const) : ("dns" as const), value }))),
        await x509.AuthorityKeyIdentifierExtension.create(authority),
        await x509.SubjectKeyIdentifierExtension.create(keys.publicKey),
      ],
    });
    writeWhole(at("server.key"), await pem(keys.privateKey));
    writeWhole(at("server.crt"), made.toString("pem"));
    writeWhole(at("names"), wanted);
  }
  return { cert: at("server.crt"), key: at("server.key"), authority: at("authority.crt") };
}
