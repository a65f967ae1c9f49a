import { execFileSync } from "node:child_process";
import { X509Certificate } from "node:crypto";
import { existsSync, mkdirSync, readFileSync } from "node:fs";
import { isIP } from "node:net";
import { hostname } from "node:os";
import { join } from "node:path";
import { writeWhole } from "./processes";

const DAY_MS = 86_400_000;
const AUTHORITY_DAYS = 3_650;
/** A device refuses a certificate that holds longer than 398 days (CA/Browser Forum baseline, 6.3.2; from memory). */
const LEAF_DAYS = 397;
const RENEW_DAYS = 30;

/**
 * Makes a key and a certificate with OpenSSL, in `folder`. Extensions as OpenSSL's x509v3_config writes them; without `by` it vouches for itself.
 * @throws where OpenSSL is missing or fails
 */
function make(folder: string, name: string, subject: string, days: number, extensions: Record<string, string>, by?: string): void {
  const at = (file: string) => join(folder, file);
  const lines = Object.entries(extensions).map(([key, value]) => `${key} = ${value}`);
  writeWhole(at(`${name}.cnf`), ["[req]", "distinguished_name = dn", "x509_extensions = ext", "[dn]", "[ext]", ...lines, ""].join("\n"));
  const key = ["-newkey", "ec", "-pkeyopt", "ec_paramgen_curve:P-256", "-nodes", "-keyout", at(`${name}.key`)];
  const signed = by ? ["-CA", at(`${by}.crt`), "-CAkey", at(`${by}.key`)] : [];
  const of = ["-subj", `/CN=${subject}`, "-days", String(days), "-sha256", "-out", at(`${name}.crt`)];
  execFileSync("openssl", ["req", "-x509", "-config", at(`${name}.cnf`), ...key, ...signed, ...of], { stdio: "pipe" });
}

/** Returns a certificate of the workshop's own for these names, made once and renewed in time; the authority that vouches for it is what a phone is told to trust. */
export function ownCertificate(home: string, names: readonly string[], now = new Date()): { cert: string; key: string; authority: string } {
  const folder = join(home, "tls");
  const at = (name: string) => join(folder, name);
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  if (!existsSync(at("authority.crt")) || !existsSync(at("authority.key")))
    make(folder, "authority", `Hearth Jar on ${hostname().replaceAll(/[^\w.-]/g, "")}`, AUTHORITY_DAYS, {
      basicConstraints: "critical, CA:TRUE, pathlen:0",
      keyUsage: "critical, keyCertSign, cRLSign",
      subjectKeyIdentifier: "hash",
    });
  const wanted = [...new Set(names)].sort().join(",");
  const holds = () => {
    if (!existsSync(at("server.crt")) || !existsSync(at("server.key")) || !existsSync(at("names")) || readFileSync(at("names"), "utf8") !== wanted)
      return false;
    return Date.parse(new X509Certificate(readFileSync(at("server.crt"))).validTo) - now.getTime() > RENEW_DAYS * DAY_MS;
  };
  if (!holds()) {
    make(
      folder,
      "server",
      "Hearth Jar",
      LEAF_DAYS,
      {
        basicConstraints: "critical, CA:FALSE",
        keyUsage: "critical, digitalSignature",
        extendedKeyUsage: "serverAuth",
        subjectAltName: [...new Set(names)].map((name) => `${isIP(name) ? "IP" : "DNS"}:${name}`).join(", "),
        subjectKeyIdentifier: "hash",
        authorityKeyIdentifier: "keyid",
      },
      "authority",
    );
    writeWhole(at("names"), wanted);
  }
  return { cert: at("server.crt"), key: at("server.key"), authority: at("authority.crt") };
}
